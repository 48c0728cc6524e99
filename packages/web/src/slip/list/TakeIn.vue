<script lang="ts">
/** Taking in a slip's file of another shop: what came with it is told, then its slip is opened. */
</script>

<script setup lang="ts">
import type { Answer } from '../../server/call.ts'
import { leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import Trouble from '../../parts/Trouble.vue'
import { useSessionStore } from '../../people/session.ts'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'

const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const take = useChange('slipFileTake')
const may = computed(() => reaches(session.person?.role, leastOf('slip.open')))
const taken = ref<Answer<'slipFileTake'>>()
const field = ref<HTMLInputElement>()

async function chosen() {
  const [file] = field.value?.files ?? []
  if (file === undefined) return
  taken.value = undefined
  const text = await file.text()
  taken.value = await take.mutateAsync({ body: { text } }).catch(() => undefined)
  if (field.value) field.value.value = ''
  renew(client, 'slip')
}
</script>

<template>
  <div v-if="may" class="no-print">
    <label>
      {{ say('slips.take') }}
      <input ref="field" type="file" accept=".json,application/json" @change="chosen" />
    </label>
    <p v-if="taken" role="status">
      <router-link :to="`/slips/${taken.number}`">{{
        say('slips.taken', { number: taken.number })
      }}</router-link>
      {{ say('slips.taken.what', taken) }}
    </p>
    <Trouble v-if="take.error.value" :trouble="troubleOf(take.error.value)" quiet />
  </div>
</template>

<style scoped>
label {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}
p {
  margin: 4px 0 0;
}
</style>
