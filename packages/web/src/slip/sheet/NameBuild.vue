<script lang="ts">
/** A build that is wanted and is not here yet, named by its id; what its family cannot read stays in the field. */
</script>

<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { BUILD_TOPIC } from '@plain-slate/core'
import { ref } from 'vue'
import { useSay } from '../../base/said.ts'
import Trouble from '../../parts/Trouble.vue'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useJob } from '../job.ts'

const say = useSay()
const client = useQueryClient()
const { params, may } = useJob()
const name = useChange('jobLines')
const typed = ref('')
async function put() {
  const lines = [{ topic: BUILD_TOPIC, answer: typed.value.trim(), note: '' }]
  const done = await name
    .mutateAsync({ params: params.value, body: { lines } })
    .catch(() => undefined)
  if (done === undefined) return
  typed.value = ''
  renew(client, 'slip')
}
</script>

<template>
  <form v-if="may" class="no-print" @submit.prevent="put">
    <v-text-field v-model="typed" :label="say('intake.build')" maxlength="60" />
    <v-btn
      type="submit"
      variant="outlined"
      :disabled="typed.trim() === '' || name.isPending.value"
      >{{ say('intake.build.name') }}</v-btn
    >
    <Trouble v-if="name.error.value" :trouble="troubleOf(name.error.value)" quiet />
  </form>
</template>

<style scoped>
/* Under the answers of the questions above it. */
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  align-items: center;
  max-width: 660px;
  margin: 8px 0 6px 216px;
}
form > :last-child:not(.v-btn) {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  form {
    margin-left: 14px;
  }
}
</style>
