<script lang="ts">
/** A reading put down by hand: what a screen, a label or a person says, with its source. */
</script>

<script setup lang="ts">
import type { FactShown } from '@plain-slate/api'
import { SOURCES } from '@plain-slate/core'
import type { Source } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useJob } from '../job.ts'

const props = defineProps<{ facts: readonly FactShown[] }>()
const say = useSay()
const client = useQueryClient()
const { params } = useJob()
const put = useChange('jobReading')
const fact = ref<FactShown['fact']>('model')
const value = ref('')
const source = ref<Exclude<Source, 'link'>>('label')
const facts = computed(() =>
  props.facts.map((one) => ({ value: one.fact, title: say(`fact.${one.fact}`) })),
)
const sources = computed(() =>
  SOURCES.filter((one) => one !== 'link').map((one) => ({
    value: one,
    title: say(`source.${one}`),
  })),
)
const field = useTemplateRef<HTMLElement>('field')
/** Begins a reading of this fact from this source: the cursor stands where its value goes. */
async function begin(next: { readonly fact: FactShown['fact']; readonly source: Source }) {
  if (next.source === 'link') return
  fact.value = next.fact
  source.value = next.source
  await nextTick()
  field.value?.querySelector<HTMLInputElement>('.mono input')?.focus()
}
defineExpose({ put: begin })
async function go() {
  if (value.value.trim() === '' || put.isPending.value) return
  const body = { fact: fact.value, value: value.value, source: source.value }
  const done = await put.mutateAsync({ params: params.value, body }).catch(() => undefined)
  if (done === undefined) return
  value.value = ''
  renew(client, 'slip')
}
</script>

<template>
  <h2>
    {{ say('readings.hand') }} <small>{{ say('readings.hand.small') }}</small>
  </h2>
  <form ref="field" class="hand no-print" @submit.prevent="go">
    <v-autocomplete
      v-model="fact"
      :items="facts"
      :label="say('readings.hand.fact')"
      auto-select-first
    />
    <v-text-field
      v-model="value"
      class="mono"
      :label="say('readings.hand.value')"
      maxlength="80"
      autocomplete="off"
    />
    <v-select v-model="source" :items="sources" :label="say('readings.hand.source')" />
    <v-btn type="submit" variant="outlined">{{ say('readings.hand.go') }}</v-btn>
  </form>
  <Trouble v-if="put.error.value" :trouble="troubleOf(put.error.value)" quiet />
</template>

<style scoped>
.hand {
  display: grid;
  grid-template-columns: 150px 1fr 190px auto;
  gap: 10px;
  align-items: start;
}
@media (max-width: 700px) {
  .hand {
    grid-template-columns: 1fr;
  }
}
</style>
