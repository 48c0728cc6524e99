<script lang="ts">
/** What the system sees by itself before a write, each with what was seen. */
</script>

<script setup lang="ts">
import type { Ready } from '@plain-slate/api'
import type { Code } from '@plain-slate/texts'
import { isCode, sayAny } from '@plain-slate/texts'
import { useBrowserStore } from '../../base/browser.ts'
import { useLineWords } from '../../parts/line-words.ts'
import { useSay } from '../../base/said.ts'

type Check = Ready['checks'][number]
defineProps<{ checks: readonly Check[]; label: string }>()
const say = useSay()
const browser = useBrowserStore()
const words = useLineWords()

/** Which of a check's sentences: not every check has one for what could not be looked at. */
function codeOf({ check, holds, seen, facts }: Check): Code {
  if (check === 'published' && holds && facts['overruled'] === 1) return 'check.published.overruled'
  if (check === 'driver' && holds && facts['old'] !== '') return 'check.driver.old'
  const unseen = `check.${check}.unseen`
  if (!seen && isCode(unseen)) return unseen
  return `check.${check}.${holds ? 'says' : 'fails'}`
}
/** What holds without having been looked at is only said. */
const wordOf = ({ holds, seen }: Check): string =>
  say(holds ? (seen ? 'ready.holds' : 'ready.said') : 'ready.fails')
function saysOf(one: Check): string {
  const { facts } = one
  const text = (name: string) => String(facts[name] ?? '')
  const about = {
    port: text('port'),
    mode: text('mode'),
    drain: text('drain'),
    here: text('here'),
    needed: text('needed'),
    alone: text('alone'),
    floor: Number(facts['floor'] ?? 0),
    unproven: text('unproven'),
    titles: text('titles'),
    other: text('other'),
    doubted: text('doubted'),
    topics: text('topics')
      .split(', ')
      .map((one) => words.topic(one))
      .join(', '),
    lacking: text('lacking'),
    modes: text('modes'),
    old: text('old'),
    programs: text('programs'),
    ports: text('ports'),
    after: text('after'),
    minutes: text('minutes'),
    free: text('free'),
    least: text('least'),
    behind: Number(facts['behind'] ?? 0),
    cable: text('cable'),
    runs: Number(facts['runs'] ?? 0),
    losses: Number(facts['losses'] ?? 0),
  }
  return sayAny(browser.language, codeOf(one), about)
}
</script>

<template>
  <ul class="asked-list" :aria-label="label">
    <li
      v-for="one in checks"
      :key="one.check"
      :class="{ fails: !one.holds }"
      :data-check="one.check"
    >
      <span class="word">{{ wordOf(one) }}</span>
      <b>{{ say(`check.${one.check}`) }}</b>
      <span class="dim">{{ saysOf(one) }}</span>
    </li>
  </ul>
</template>
