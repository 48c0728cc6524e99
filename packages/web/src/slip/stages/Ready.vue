<script lang="ts">
/** Ready: what the system sees by itself, and what people sign for; all of it before a write may start. */
</script>

<script setup lang="ts">
import type { Job, Ready } from '@plain-slate/api'
import type { Mode } from '@plain-slate/core'
import type { Code } from '@plain-slate/texts'
import { isCode, sayAny } from '@plain-slate/texts'
import { computed } from 'vue'
import { useBrowserStore } from '../../browser.ts'
import Resource from '../../parts/Resource.vue'
import { useSay } from '../../said.ts'
import { useRead } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import StageSheet from '../StageSheet.vue'
import { standingOf, useJob, useLineWords } from '../job.ts'

type Check = Ready['checks'][number]
const say = useSay()
const browser = useBrowserStore()
const words = useLineWords()
const { when } = useShop()
const { params, may, tell, put } = useJob()
const ready = useRead('jobReady', () => ({ params: params.value }))

function title(data: Job): string {
  if (data.plan === null) return say('ready.title.none')
  const now = standingOf(data, 'ready')
  return now?.is === 'open'
    ? say('ready.title.open', { n: Number(now.facts['open']) })
    : say('ready.title.done')
}
/** Which of a check's sentences: not every check has one for what could not be looked at. */
function codeOf({ check, holds, seen }: Check): Code {
  const unseen = `check.${check}.unseen`
  if (!seen && isCode(unseen)) return unseen
  return `check.${check}.${holds ? 'says' : 'fails'}`
}
function saysOf(one: Check): string {
  const { facts } = one
  const text = (name: string) => String(facts[name] ?? '')
  const about = {
    port: text('port'),
    mode: text('mode') === '' ? '' : say(`mode.${text('mode') as Mode}`),
    drain: text('drain'),
    here: text('here'),
    needed: text('needed'),
    unproven: text('unproven'),
    cable: text('cable'),
    runs: Number(facts['runs'] ?? 0),
    losses: Number(facts['losses'] ?? 0),
  }
  return sayAny(browser.language, codeOf(one), about)
}
const sign = (topics: readonly string[]) => tell(topics.map((topic) => ({ topic, answer: 'done' })))
const open = computed(() =>
  (ready.data.value?.signed ?? []).filter(({ signed }) => !signed).map(({ topic }) => topic),
)
</script>

<template>
  <StageSheet stage="ready" :title="title" :lede="() => say('ready.lede')" :error="put.error.value">
    <template #default="{ job: data }">
      <Resource v-slot="{ data: now }" :read="ready">
        <h2 id="system">
          {{ say('ready.system') }} <small>{{ say('ready.system.small') }}</small>
        </h2>
        <ul aria-labelledby="system">
          <li
            v-for="one in now.checks"
            :key="one.check"
            :class="{ fails: !one.holds }"
            :data-check="one.check"
          >
            <span class="word">{{ say(one.holds ? 'ready.holds' : 'ready.fails') }}</span>
            <b>{{ say(`check.${one.check}`) }}</b>
            <span class="dim">{{ saysOf(one) }}</span>
          </li>
        </ul>
        <h2 id="person">
          {{ say('ready.person') }} <small>{{ say('ready.person.small') }}</small>
        </h2>
        <ul aria-labelledby="person">
          <li
            v-for="one in now.signed"
            :key="one.topic"
            :class="{ open: !one.signed }"
            :data-topic="one.topic"
          >
            <span class="word">
              <button
                v-if="!one.signed && may"
                type="button"
                class="sign no-print"
                :aria-label="`${say('ready.sign')}: ${words.topic(one.topic, data.family?.permission)}`"
                @click="sign([one.topic])"
              >
                {{ say('ready.sign') }}
              </button>
              <template v-else-if="one.signed">{{ say('answer.done') }}</template>
            </span>
            <b>{{ words.topic(one.topic, data.family?.permission) }}</b>
            <span class="dim">{{
              one.signed && one.at
                ? say('ready.signed', { by: one.by ?? '', when: when(one.at) })
                : ''
            }}</span>
          </li>
        </ul>
        <p v-if="open.length > 1 && may" class="no-print">
          <button type="button" class="act" @click="sign(open)">{{ say('ready.sign.all') }}</button>
        </p>
      </Resource>
    </template>
  </StageSheet>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr) minmax(0, 0.8fr);
  gap: 10px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
  border-left: 5px solid transparent;
  padding: 7px 0 7px 10px;
}
li b {
  font-weight: 600;
}
.word {
  font-size: 13px;
  color: var(--lichen);
}
.fails {
  border-left-color: var(--brick);
}
.fails .word {
  color: var(--brick);
  font-weight: 650;
}
.open {
  border-left-color: var(--ochre);
}
.sign {
  font: 600 14px/1.4 var(--sans);
  color: var(--ink);
  background: var(--field);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 2px 10px;
  cursor: pointer;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: 84px 1fr;
  }
  li > :last-child {
    grid-column: 2;
  }
}
</style>
