<script lang="ts">
/** Routes, best first: what goes on in which order, how long, what becomes of the data, the worst moment. */
</script>

<script setup lang="ts">
import type { FindingShown, RouteShown } from '@plain-slate/api'
import { worstFate } from '@plain-slate/core'
import { failsWords, movesWords, passedWords, rangeWords } from '@plain-slate/texts'
import Peg from '../../pictures/Peg.vue'
import { useSay } from '../../base/said.ts'

const props = defineProps<{
  routes: readonly RouteShown[]
  picked: string | null
  number: (finding: FindingShown) => number | undefined
  may: boolean
  /** They are looked for again: none of these is taken meanwhile. */
  old: boolean
  /** What the list is called, where it is not all routes. */
  label?: string
}>()
const emit = defineEmits<{ pick: [id: string] }>()
const say = useSay()
const worstOf = ({ fates }: Pick<RouteShown, 'fates'>) => worstFate(fates.map(({ fate }) => fate))
const numbers = ({ findings }: RouteShown) =>
  findings.map((one) => props.number(one)).filter((one) => one !== undefined)
/** What leads back from its end; where nothing does, what does as long as it is not written yet. */
function back({ back: from, wayBack }: RouteShown): string {
  if (from !== null) {
    const words = { title: from.titles.join(', '), fate: say(`fate.${from.data}`) }
    return say(from.fetch ? 'routes.back.fetch' : 'routes.back', words)
  }
  return wayBack === null ? say('routes.back.none') : say('routes.back.closes', { title: wayBack })
}
const missed = ({ misses }: RouteShown) =>
  misses.map((one) => say(`routes.misses.${one}`)).join(', ')
const HARM: readonly string[] = ['dead', 'data-lost']
const isHarm = ({ worst }: RouteShown) => worst !== null && HARM.includes(worst.leaves)
const worst = ({ worst: at }: RouteShown) =>
  at === null
    ? say('routes.rehearsing')
    : `${passedWords(say, Math.ceil(at.seconds))}, ${say(`strip.${at.leaves}`)}`
</script>

<template>
  <ul class="routes" :aria-label="label ?? say('routes.routes')">
    <li
      v-for="route in routes"
      :key="route.route"
      :class="{ picked: route.route === picked }"
      :data-route="route.route"
    >
      <Peg :verdict="route.verdict" />
      <div class="what">
        <b>
          <template v-if="route.first.length > 0">{{
            say('routes.first', { first: movesWords(say, route.first) }) + ' '
          }}</template>
          <span class="mono">{{ route.title }}</span>
          {{ say(route.idle ? 'routes.way.idle' : `routes.way.${route.way}`)
          }}<template v-if="route.then.length > 0">{{
            ', ' + say('routes.then', { then: movesWords(say, route.then) })
          }}</template>
          <span v-for="n in numbers(route)" :key="n" class="told">{{ n }}</span>
        </b>
        <span class="dim small block">{{ route.patchDate }} · {{ back(route) }}</span>
        <span v-if="route.misses.length > 0" class="amiss small block">{{
          say('routes.misses', { what: missed(route) })
        }}</span>
        <span v-if="route.fails" class="amiss small block">{{ failsWords(say, route.fails) }}</span>
        <span v-if="route.route === picked" class="small block">{{ say('routes.picked') }}</span>
        <button
          v-else-if="may"
          type="button"
          class="act no-print"
          :disabled="old"
          @click="emit('pick', route.route)"
        >
          {{ say('routes.pick', { title: route.title }) }}
        </button>
      </div>
      <div>
        <span class="dim small block">{{ say('routes.work') }}</span>
        <b class="mono">{{ rangeWords(say, route.time) }}</b>
        <span class="dim small block">{{
          say('routes.hands', { range: rangeWords(say, route.hands) })
        }}</span>
      </div>
      <div>
        <span class="dim small block">{{ say('routes.data') }}</span>
        <b :class="['mono', worstOf(route)]">{{ say(`fate.${worstOf(route)}`) }}</b>
      </div>
      <div>
        <span class="dim small block">{{ say('routes.worst') }}</span>
        <span class="small" :class="{ harm: isHarm(route), dim: !route.rehearsed }">
          <svg v-if="isHarm(route)" width="12" height="11" viewBox="0 0 12 11" aria-hidden="true">
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
