<script lang="ts">
/** One thing that people sign for: what was said of it, or the word to be put under one's name; the slot says more. */
</script>

<script setup lang="ts">
import { TAKEN_BACK, topicOf } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'
import { useLineWords } from '../../parts/line-words.ts'
import { useJob } from '../job.ts'

const { topic, answers } = defineProps<{
  /** By what the row is known; what is said is said of it. */
  topic: string
  name: string
  /** None: nobody signs for it, the system sees it. */
  answers: readonly string[]
  signed: boolean
  /** What stands there once it is signed, or instead of a signature. */
  word: string
  /** Somebody gave it under their name, and it can still be taken back. */
  given: boolean
}>()
defineSlots<{ default: () => unknown }>()
const say = useSay()
const words = useLineWords()
const { may, tell } = useJob()
/** What a word that was given is taken back with. */
const back = computed(() => {
  if (topicOf(topic)?.group === 'ready') return { answer: TAKEN_BACK, act: say('ready.take-back') }
  return answers.includes('no') ? { answer: 'no', act: say('ready.withdrawn') } : undefined
})
</script>

<template>
  <li :class="{ open: !signed }" :data-topic="topic">
    <span class="word">
      <template v-if="signed || word !== ''">{{ word }}</template>
      <button
        v-else-if="may && answers.length === 1"
        type="button"
        class="sign no-print"
        :aria-label="`${say('ready.sign')}: ${name}`"
        @click="tell([{ topic, answer: answers[0] ?? 'done' }])"
      >
        {{ say('ready.sign') }}
      </button>
    </span>
    <b>{{ name }}</b>
    <span class="dim">
      <span v-if="may && answers.length > 1 && !signed" class="row no-print">
        <button
          v-for="answer in answers"
          :key="answer"
          type="button"
          class="sign"
          :aria-label="say('ready.answer', { topic: name, answer: words.answer(answer) })"
          @click="tell([{ topic, answer }])"
        >
          {{ words.answer(answer) }}
        </button>
      </span>
      <slot />
      <button
        v-if="may && signed && given && back !== undefined"
        type="button"
        class="act no-print"
        :aria-label="say('ready.take-back.of', { act: back.act, topic: name })"
        @click="tell([{ topic, answer: back.answer }])"
      >
        {{ back.act }}
      </button>
    </span>
  </li>
</template>

<style scoped>
.act {
  margin-inline-start: 8px;
}
</style>
