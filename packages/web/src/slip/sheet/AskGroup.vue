<script lang="ts">
/** Things that are asked together, under one heading. */
</script>

<script setup lang="ts">
import type { TopicShown } from '@plain-slate/api'
import type { Code } from '@plain-slate/texts'
import { isCode, sayAny } from '@plain-slate/texts'
import { useBrowserStore } from '../../base/browser.ts'
import { useSay } from '../../base/said.ts'
import Ask from './Ask.vue'
import { useLineWords } from '../../parts/line-words.ts'
import { useJob } from '../job.ts'

type Topic = Pick<TopicShown, 'topic' | 'answers' | 'name' | 'needed'> &
  Partial<Pick<TopicShown, 'fate' | 'say'>>
defineProps<{ group: string; topics: readonly Topic[] }>()
const browser = useBrowserStore()
const words = useLineWords()
const { job, line, tell, may } = useJob()
const say = useSay()
/** What becomes of the thing, as far as anything says so; how hands do what is asked. */
function under({ fate = null, say: how = [] }: Topic): string {
  const told =
    fate === null
      ? []
      : [
          job.data.value?.plan === null && fate === 'unpromised'
            ? say('intake.fate.placeless')
            : say('intake.fate', { fate: say(`fate.${fate}`) }),
        ]
  return [...told, ...how].join(' ')
}
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
      :under="under(one)"
      :may="may"
      @tell="(answer) => tell([{ topic: one.topic, answer }])"
    />
    <slot />
  </section>
</template>
