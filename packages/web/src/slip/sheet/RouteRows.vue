<script lang="ts">
/** Routes, best first: what goes on in which order, how long, what becomes of the data, the worst moment. */
</script>

<script setup lang="ts">
import type { FindingShown, RouteShown } from '@plain-slate/api'
import { worstFate } from '@plain-slate/core'
import { passedWords, rangeWords } from '@plain-slate/texts'
import Peg from '../../pictures/Peg.vue'
import { useSay } from '../../base/said.ts'

const props = defineProps<{
  routes: readonly RouteShown[]
  picked: string | null
  number: (finding: FindingShown) => number | undefined
  may: boolean
}>()
const emit = defineEmits<{ pick: [id: string] }>()
const say = useSay()
const worstOf = ({ fates }: Pick<RouteShown, 'fates'>) => worstFate(fates.map(({ fate }) => fate))
const numbers = ({ findings }: RouteShown) =>
  findings.map((one) => props.number(one)).filter((one) => one !== undefined)
const back = ({ wayBack }: RouteShown) =>
  wayBack === null ? say('routes.back.none') : say('routes.back', { title: wayBack })
const HARM: readonly string[] = ['dead', 'data-lost']
const worst = ({ worst: { leaves, seconds } }: RouteShown) =>
  `${passedWords(say, Math.ceil(seconds))}, ${say(`strip.${leaves}`)}`
</script>

<template>
  <ul class="routes" :aria-label="say('routes.routes')">
    <li
      v-for="route in routes"
      :key="route.package"
      :class="{ picked: route.package === picked }"
      :data-route="route.package"
    >
      <Peg :verdict="route.verdict" />
      <div class="what">
        <b>
          <template v-if="route.first.length > 0">{{
            say('routes.first', { first: route.first.join(', ') }) + ' '
          }}</template>
          <span class="mono">{{ route.build }}</span> {{ say('routes.by-parts') }}
          <span v-for="n in numbers(route)" :key="n" class="told">{{ n }}</span>
        </b>
        <span class="dim small block">{{ route.patchDate }} · {{ back(route) }}</span>
        <span v-if="route.package === picked" class="small block">{{ say('routes.picked') }}</span>
        <button
          v-else-if="may"
          type="button"
          class="act no-print"
          @click="emit('pick', route.package)"
        >
          {{ say('routes.pick', { title: route.title }) }}
        </button>
      </div>
      <div>
        <span class="dim small block">{{ say('routes.work') }}</span>
        <b class="mono">{{ rangeWords(say, route.time) }}</b>
      </div>
      <div>
        <span class="dim small block">{{ say('routes.data') }}</span>
        <b :class="['mono', worstOf(route)]">{{ say(`fate.${worstOf(route)}`) }}</b>
      </div>
      <div>
        <span class="dim small block">{{ say('routes.worst') }}</span>
        <span class="small" :class="{ harm: HARM.includes(route.worst.leaves) }">
          <svg
            v-if="HARM.includes(route.worst.leaves)"
            width="12"
            height="11"
            viewBox="0 0 12 11"
            aria-hidden="true"
          >
            <path d="M6 0L12 11H0Z" />
          </svg>
          {{ worst(route) }}
        </span>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.routes {
  list-style: none;
  margin: 0 -24px;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) 116px 88px 130px;
  gap: 6px 10px;
  border-top: 1px solid var(--rule);
  border-left: 5px solid transparent;
  padding: 9px 24px 9px 19px;
}
li:last-child {
  border-bottom: 1px solid var(--rule);
}
.picked {
  background: var(--raised);
  border-left-color: var(--ink);
}
.block {
  display: block;
}
.kept {
  color: var(--lichen);
}
.wiped,
.unreadable,
.harm {
  color: var(--brick);
}
path {
  fill: var(--brick);
}
@media (max-width: 700px) {
  .routes {
    margin: 0;
  }
  li {
    grid-template-columns: 26px 1fr 1fr;
    padding: 9px 4px;
  }
  .what {
    grid-column: 2 / 4;
  }
}
</style>
