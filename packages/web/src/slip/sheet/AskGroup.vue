<script lang="ts">
/** Things that are asked together, under one heading. */
</script>

<script setup lang="ts">
import type { TopicShown } from '@plain-slate/api'
import type { Code } from '@plain-slate/texts'
import { isCode, sayAny } from '@plain-slate/texts'
import { useBrowserStore } from '../../base/browser.ts'
import Ask from './Ask.vue'
import { useJob, useLineWords } from '../job.ts'

defineProps<{
  group: string
  topics: readonly Pick<TopicShown, 'topic' | 'answers' | 'name' | 'needed'>[]
}>()
const browser = useBrowserStore()
const words = useLineWords()
const { line, tell, may } = useJob()
const heading = (code: string) => (isCode(code) ? sayAny(browser.language, code as Code, {}) : '')
</script>

<template>
  <section :aria-labelledby="`group-${group}`">
    <h2 :id="`group-${group}`">
      {{ heading(`group.${group}`) }} <small>{{ heading(`group.${group}.small`) }}</small>
    </h2>
    <Ask
      v-for="one in topics"
      :key="one.topic"
      :topic="one.topic"
      :name="one.name ?? words.topic(one.topic)"
      :answers="one.answers"
      :line="line(one.topic)"
      :needed="one.needed"
      :may="may"
      @tell="(answer) => tell([{ topic: one.topic, answer }])"
    />
    <slot />
  </section>
</template>
