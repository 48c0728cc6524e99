<script lang="ts">
/** The permit that was brought for service: put down as its paper says it, held against the device by the rules. */
</script>

<script setup lang="ts">
import { PERMIT_TOPIC, permitOf, permitText } from '@plain-slate/core'
import { computed, ref } from 'vue'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'

const say = useSay()
const { job, line, may, tell, put } = useJob()
const id = ref('')
const device = ref('')
const until = ref('')
const open = ref(false)
const known = computed(() => permitOf(line(PERMIT_TOPIC)?.answer ?? ''))
const parts = computed(() => [id.value, device.value, until.value].map((one) => one.trim()))
const typed = computed(() => permitOf(parts.value.join(' ')))
const isOdd = computed(() => parts.value.every((one) => one !== '') && typed.value === undefined)
async function putDown() {
  if (typed.value === undefined) return
  await tell([{ topic: PERMIT_TOPIC, answer: permitText(typed.value) }])
  open.value = false
}
</script>

<template>
  <section id="permit" aria-labelledby="permit-title">
    <h2 id="permit-title">{{ say('permit.title') }}</h2>
    <p v-if="known">{{ say('permit.known', { ...known }) }}</p>
    <p v-else class="dim">{{ say('permit.none') }}</p>
    <template v-if="may && job.data.value?.run === null">
      <button
        v-if="!open"
        type="button"
        class="act no-print"
        :aria-expanded="open"
        @click="open = true"
      >
        {{ known ? say('permit.other') : say('permit.put') }}
      </button>
      <form v-else class="row no-print" @submit.prevent="putDown">
        <v-text-field v-model="id" :label="say('permit.id')" maxlength="64" />
        <v-text-field v-model="device" :label="say('permit.device')" maxlength="64" />
        <v-text-field
          v-model="until"
          :label="say('permit.until')"
          maxlength="10"
          placeholder="2026-12-31"
        />
        <button type="submit" class="act" :disabled="!typed || put.isPending.value">
          {{ say('permit.go') }}
        </button>
        <p v-if="isOdd" class="amiss small">{{ say('permit.odd') }}</p>
      </form>
    </template>
  </section>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 8px;
  align-items: center;
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
