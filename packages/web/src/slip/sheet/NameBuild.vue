<script lang="ts">
/** A build that is wanted and is not here yet, named by its id; what its family cannot read stays in the field. */
</script>

<script setup lang="ts">
import { BUILD_TOPIC } from '@plain-slate/core'
import { ref } from 'vue'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'

const say = useSay()
const { line, tell, may } = useJob()
const typed = ref('')
async function put() {
  const answer = typed.value.trim()
  await tell([{ topic: BUILD_TOPIC, answer }])
  if (line(BUILD_TOPIC)?.answer === answer) typed.value = ''
}
</script>

<template>
  <form v-if="may" class="no-print" @submit.prevent="put">
    <v-text-field v-model="typed" :label="say('intake.build')" maxlength="60" />
    <v-btn type="submit" variant="outlined" :disabled="typed.trim() === ''">{{
      say('intake.build.name')
    }}</v-btn>
  </form>
</template>

<style scoped>
form {
  display: flex;
  gap: 12px;
  align-items: center;
  max-width: 440px;
  margin: 6px 0;
}
</style>
