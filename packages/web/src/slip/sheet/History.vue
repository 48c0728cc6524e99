<script lang="ts">
/**
 * What was tried before it came here: what, by whom, with which file, where it stopped. A build id among it is a reading
 * too, of the least weight: somebody says that it was put on.
 */
</script>

<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import { useSay } from '../../base/said.ts'
import Trouble from '../../parts/Trouble.vue'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useJob } from '../job.ts'

const say = useSay()
const client = useQueryClient()
const { params, tell } = useJob()
const read = useChange('jobReading')
const FIELDS = ['what', 'who', 'file', 'stopped'] as const
const empty = () => ({ what: '', who: '', file: '', stopped: '' })
const told = reactive(empty())
const some = computed(() => FIELDS.some((field) => told[field].trim() !== ''))
/** One word is taken for a build id; whatever is none is told why, and the note is kept all the same. */
const isId = (file: string) => file !== '' && !/\s/.test(file)

async function put() {
  const lines = FIELDS.filter((field) => told[field].trim() !== '')
  const note = lines.map((field) => `${say(`intake.history.${field}`)}: ${told[field].trim()}`)
  const file = told.file.trim()
  await tell([{ topic: 'history.before', answer: 'tried', note: note.join('\n') }])
  Object.assign(told, empty())
  if (!isId(file)) return
  const body = { fact: 'build', value: file, source: 'person' } as const
  await read.mutateAsync({ params: params.value, body }).catch(() => undefined)
  renew(client, 'slip')
}
</script>

<template>
  <form class="no-print" @submit.prevent="put">
    <v-text-field
      v-for="field in FIELDS"
      :key="field"
      v-model="told[field]"
      :label="say(`intake.history.${field}`)"
      maxlength="400"
    />
    <p class="dim small">{{ say('intake.history.reading') }}</p>
    <v-btn type="submit" variant="outlined" :disabled="!some">{{
      say('intake.history.put')
    }}</v-btn>
    <Trouble v-if="read.error.value" :trouble="troubleOf(read.error.value)" quiet />
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  align-items: start;
  margin: 6px 0;
}
p {
  margin: 0;
  grid-column: 1 / -1;
}
.v-btn {
  justify-self: start;
}
@media (max-width: 700px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>
