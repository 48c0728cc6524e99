<script lang="ts">
/** Routes as they would be, each with what it is beside today: new, another, the same, gone. */
</script>

<script setup lang="ts">
import { findingWords, movesWords } from '@plain-slate/texts'
import { useBrowserStore } from '../../base/browser.ts'
import Peg from '../../pictures/Peg.vue'
import { useSay } from '../../base/said.ts'
import type { Answered, Told } from './asked.ts'
import type { Moved } from './what-if.ts'

defineProps<{
  routes: readonly Moved[]
  gone: readonly Told[]
  blocked: Answered['blocked']
}>()
const say = useSay()
const browser = useBrowserStore()
/** As many as a margin holds. */
const SHOWN = 8
const missed = ({ misses }: Told) => misses.map((one) => say(`routes.misses.${one}`)).join(', ')
</script>

<template>
  <h2>{{ say('what-if.routes') }}</h2>
  <ul class="would" aria-live="polite" :aria-label="say('what-if.routes')">
    <li v-for="one in routes.slice(0, SHOWN)" :key="one.name" :data-is="one.is">
      <Peg :verdict="one.verdict" />
      <div>
        <template v-if="one.first.length > 0">{{
          say('routes.first', { first: movesWords(say, one.first) }) + ' '
        }}</template>
        <b class="mono">{{ one.title }}</b> {{ say(`routes.way.${one.way}`)
        }}<template v-if="one.then.length > 0">{{
          ', ' + say('routes.then', { then: movesWords(say, one.then) })
        }}</template>
        <span class="dim small block">
          {{ say('what-if.costs', { minutes: one.minutes, fate: say(`fate.${one.data}`) }) }}
          <b v-if="one.is !== 'same'">{{ say(`what-if.is.${one.is}`) }}</b>
        </span>
        <span v-if="one.misses.length > 0" class="amiss small block">{{
          say('routes.misses', { what: missed(one) })
        }}</span>
      </div>
    </li>
    <li v-for="one in gone.slice(0, SHOWN)" :key="one.name" data-is="gone">
      <Peg verdict="does-not-fit" />
      <div class="dim">
        <s class="mono">{{ one.title }}</s> {{ say(`routes.way.${one.way}`) }}
        <b class="small">{{ say('what-if.is.gone') }}</b>
      </div>
    </li>
  </ul>
  <p v-if="routes.length === 0">{{ say('what-if.closed') }}</p>
  <ul v-if="blocked.length > 0" class="would">
    <li v-for="(one, index) in blocked" :key="index">
      <Peg verdict="cannot-tell" />
      <div>
        <span class="mono">{{ one.title }}</span>: {{ findingWords(browser.language, one) }}
      </div>
    </li>
  </ul>
</template>

<style scoped>
h2 {
  margin-top: 12px;
}
.would {
  list-style: none;
  margin: 0;
  padding: 0;
}
.would li {
  display: grid;
  grid-template-columns: 22px 1fr;
  gap: 6px;
  border-top: 1px solid var(--rule);
  padding: 6px 0;
  font-size: 14px;
}
.block {
  display: block;
}
</style>
