<script lang="ts">
/** Where this slip departs from what its house decided, who says so and why. */
</script>

<script setup lang="ts">
import { SCHOOL_QUESTIONS, departTopic } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'
import { schoolCode } from '../../house/draft.ts'
import { useRead } from '../../server/query.ts'
import { useJob } from '../job.ts'

const say = useSay()
const { line } = useJob()
const house = useRead('house')
/** What was departed from and is what the house decides now is none any more. */
const departed = computed(() =>
  SCHOOL_QUESTIONS.flatMap((question) => {
    const told = line(departTopic(question))
    const rules = house.data.value?.rules
    if (told === undefined || rules === undefined || rules[question] === told.answer) return []
    return [{ question, told }]
  }),
)
</script>

<template>
  <ul v-if="departed.length > 0" class="departed">
    <li v-for="{ question, told } in departed" :key="question">
      {{ say(`topic.depart.${question}`) }}:
      <b>{{ say(schoolCode(question, told.answer)) }}</b>
      <span class="dim small">{{
        say('routes.departed', { by: told.by ?? '', note: told.note ?? '' })
      }}</span>
    </li>
  </ul>
</template>

<style scoped>
.departed {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
</style>
