<script lang="ts">
/** What stands against going on: a word, and who said it; else a charge too low for the rest; and what the run does about it. */
</script>

<script setup lang="ts">
import type { RunShown } from '@plain-slate/api'
import { topicOf } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { useLineWords } from '../parts/line-words.ts'
import { useShop } from '../time/shop.ts'

const { run } = defineProps<{ run: RunShown }>()
const say = useSay()
const words = useLineWords()
const { when } = useShop()
const said = computed(() => {
  const { against } = run
  if (against === null) return ''
  const { topic, answer, by, at } = against
  const facts = { topic: words.topic(topic), answer: words.answer(answer), when: when(at) }
  return by === null ? say('run.against.shell', facts) : say('run.against', { ...facts, by })
})
const stage = computed(() => topicOf(run.against?.topic ?? '')?.stage ?? 'intake')
/** It stands still, it is about to, or it goes on to where it is safe to wait. */
const does = computed(() => {
  if (run.state === 'ended') return 'ended'
  if (run.state !== 'running') return 'stopped'
  return run.stop === null ? 'goes-on' : 'stops'
})
</script>

<template>
  <div v-if="run.against !== null" class="against" role="alert">
    <strong>{{ said }}</strong>
    <p>
      {{ say(`run.against.${does}`) }}
      <RouterLink
        v-if="run.slip !== null && run.state !== 'ended'"
        :to="`/slips/${run.slip}/${stage}`"
        >{{ say('run.against.settle', { stage: say(`stage.${stage}`) }) }}</RouterLink
      >
    </p>
  </div>
  <div v-else-if="run.short !== null && run.state !== 'ended'" class="against" role="alert">
    <strong>{{ say('run.short', run.short) }}</strong>
    <p>{{ say(`run.short.${does === 'ended' ? 'stopped' : does}`) }}</p>
  </div>
  <div v-else-if="run.low !== null && run.state === 'stopped'" class="against" role="status">
    <strong>{{ say('run.low', run.low) }}</strong>
    <p>{{ say('run.low.do') }}</p>
  </div>
</template>

<style scoped>
.against {
  border-left: 10px solid var(--brick);
  padding: 6px 16px;
  margin: 10px 0;
}
strong {
  display: block;
  font-size: 20px;
  line-height: 1.3;
}
p {
  margin: 6px 0 0;
}
</style>
