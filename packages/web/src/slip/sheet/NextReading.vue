<script lang="ts">
/** Read next: the one fact that is worth most, where it is read, how long that takes, what it rules out; the runner-up. */
</script>

<script setup lang="ts">
import type { NextShown } from '@plain-slate/api'
import { passedWords } from '@plain-slate/texts'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'

const props = defineProps<{ next: readonly NextShown[] }>()
const say = useSay()
const first = computed(() => props.next[0])
const second = computed(() => props.next[1])
const name = ({ fact }: NextShown) => say(`fact.${fact}`)

/** Where it is read, and how long it takes to be there and read it. */
function where(one: NextShown): string {
  const { source, where: place, mode, seconds, legs } = one
  const at =
    source === 'link'
      ? say('next.at.link', { source: say(`source.${source}`) })
      : say('next.at', { source: say(`source.${source}`), where: place })
  const there =
    mode === null
      ? say('next.there.housing')
      : legs === 0
        ? say('next.there.here', { mode: mode.name })
        : say('next.there', { mode: mode.name, legs })
  return say('next.where', { at, there, time: passedWords(say, seconds) })
}
/** What it rules out of what is left, or what waits for it. */
function why({ gain, most, least, left, tells }: NextShown): string {
  if (left === 0) return say('next.job')
  if (gain === 0) return say('next.tells', { tells })
  if (most === least) return say('next.rules.all', { left, most })
  return say('next.rules', { left, least, most, gain: Math.round(gain * 10) / 10 })
}
const along = computed(() =>
  (first.value?.along ?? []).map((fact) => say(`fact.${fact}`)).join(', '),
)
</script>

<template>
  <section v-if="first" class="next" data-claim="next">
    <h2>
      {{ say('next.title', { fact: name(first) }) }}
    </h2>
    <p>{{ where(first) }}</p>
    <p>
      {{ why(first) }} <span v-if="along !== ''">{{ say('next.along', { facts: along }) }}</span>
    </p>
    <p v-if="second" class="dim small" data-claim="next.second">
      {{ say('next.second', { fact: name(second), where: where(second), why: why(second) }) }}
    </p>
    <slot />
  </section>
</template>

<style scoped>
.next {
  border-left: 4px solid var(--ink);
  padding: 2px 0 2px 14px;
  margin: 4px 0 14px;
}
h2 {
  margin-top: 0;
}
p {
  margin: 0 0 4px;
}
</style>
