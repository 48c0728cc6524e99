<script lang="ts">
/**
 * Its maker's permit: put down by the signed file that its maker sent, or typed by a lead, which is called so. The rules
 * hold it against device, package and day.
 */
</script>

<script setup lang="ts">
import { PERMIT_CHARS_MAX, PERMIT_TOPIC, permitOf, permitText, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useSay } from '../../base/said.ts'
import FileField from '../../parts/FileField.vue'
import Trouble from '../../parts/Trouble.vue'
import { useSessionStore } from '../../people/session.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useJob } from '../job.ts'

const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const { job, line, may, tell, put, params } = useJob()
const take = useChange('jobPermit')
const id = ref('')
const device = ref('')
const until = ref('')
const open = ref(false)
const known = computed(() => job.data.value?.permit ?? undefined)
const isLost = computed(
  () => known.value === undefined && (line(PERMIT_TOPIC)?.answer ?? '') !== '',
)
const mayPut = computed(() => may.value && job.data.value?.run === null)
const isLead = computed(() => reaches(session.person?.role, 'lead'))
const trouble = computed(() => take.error.value ?? put.error.value)
const parts = computed(() => [id.value, device.value, until.value].map((one) => one.trim()))
const typed = computed(() => permitOf(parts.value.join(' ')))
const isOdd = computed(() => parts.value.every((one) => one !== '') && typed.value === undefined)
async function putDown() {
  if (typed.value === undefined) return
  await tell([{ topic: PERMIT_TOPIC, answer: permitText(typed.value) }])
  open.value = false
}
async function takeFile(file: File) {
  /* A file that is longer is none, and the server says so of its beginning. */
  const text = await file.slice(0, PERMIT_CHARS_MAX).text()
  await take
    .mutateAsync({ params: params.value, body: { text: text === '' ? ' ' : text } })
    .catch(() => undefined)
  renew(client, 'slip')
}
</script>

<template>
  <section id="permit" aria-labelledby="permit-title">
    <h2 id="permit-title">{{ say('permit.title') }}</h2>
    <template v-if="known">
      <p>{{ say('permit.known', { id: known.id, device: known.device, until: known.until }) }}</p>
      <p v-if="known.signed" class="small">
        {{
          say('permit.signed', {
            maker: known.signed.maker,
            key: known.signed.key,
            from: known.signed.from,
            until: known.until,
            packages: known.signed.packages.join(', '),
          })
        }}
      </p>
      <p v-else class="amiss small">{{ say('permit.word') }}</p>
    </template>
    <p v-else-if="isLost" class="amiss">{{ say('permit.lost') }}</p>
    <p v-else class="dim">{{ say('permit.none') }}</p>
    <div v-if="mayPut" class="ways no-print">
      <FileField :label="say('permit.file')" accept=".json,application/json" @chosen="takeFile" />
      <Trouble v-if="trouble" :trouble="troubleOf(trouble)" quiet />
      <template v-if="isLead">
        <button v-if="!open" type="button" class="act" :aria-expanded="open" @click="open = true">
          {{ known ? say('permit.other') : say('permit.put') }}
        </button>
        <form v-else class="row" @submit.prevent="putDown">
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
      <p v-else class="dim small">{{ say('permit.typed') }}</p>
    </div>
  </section>
</template>

<style scoped>
.ways {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 8px;
  align-items: center;
  width: 100%;
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
