<script lang="ts">
/** Taking in a slip's file of another shop: what came with it is told, then its slip is opened. */
</script>

<script setup lang="ts">
import type { Answer } from '../../server/call.ts'
import { leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import FileField from '../../parts/FileField.vue'
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

async function chosen(file: File) {
  const text = await file.text()
  taken.value = undefined
  taken.value = await take.mutateAsync({ body: { text } }).catch(() => undefined)
  renew(client, 'slip')
}
</script>

<template>
  <div v-if="may" class="no-print">
    <FileField :label="say('slips.take')" accept=".json,application/json" @chosen="chosen" />
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
p {
  margin: 4px 0 0;
}
</style>
