<script lang="ts">
/**
 * From a plan at the Bench to its start: a run has a slip, so this leads to the slip of the device, or opens
 * one for it with the device read and the route picked. Nothing is started here.
 */
</script>

<script setup lang="ts">
import type { Port, Seen } from '@plain-slate/api'
import type { Intent } from '@plain-slate/core'
import { leastOf, reaches } from '@plain-slate/core'
import { endOf } from '@plain-slate/texts'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{
  seen: Seen
  slip: Port['slip']
  asked: { port: string; package: string; intent: Intent }
}>()
const say = useSay()
const router = useRouter()
const client = useQueryClient()
const session = useSessionStore()
const open = useChange('slipOpen')
const read = useChange('jobRead')
const put = useChange('jobLines')
const busy = computed(() => open.isPending.value || read.isPending.value || put.isPending.value)
const error = computed(() => open.error.value ?? read.error.value ?? put.error.value)
const may = computed(() => reaches(session.person?.role, leastOf('slip.open')))

/** Opens the slip; what could not be read or picked is done there. */
async function go() {
  const { model, serial } = props.seen
  const { port, package: answer, intent } = props.asked
  const device = `${model} …${endOf(serial)}`
  const body = { device, model, intent, customer: '', promise: '', words: '', due: '' }
  const slip = await open.mutateAsync({ body }).catch(() => undefined)
  if (slip === undefined) return
  const params = { number: slip.number }
  await read.mutateAsync({ params, body: { port, deep: false } }).catch(() => undefined)
  const lines = [{ topic: 'route.package', answer }]
  await put.mutateAsync({ params, body: { lines } }).catch(() => undefined)
  for (const topic of ['slip', 'bench'] as const) renew(client, topic)
  await router.push(`/slips/${slip.number}/intake`)
}
</script>

<template>
  <section class="card" :aria-label="say('plan.start.title')">
    <p class="dim">{{ say('plan.start.why') }}</p>
    <p class="row no-print">
      <router-link v-if="slip" :to="`/slips/${slip.number}/${slip.stage}`">{{
        say('plan.start.slip', { number: slip.number })
      }}</router-link>
      <v-btn v-else-if="may" :disabled="busy" @click="go">{{ say('plan.start.open') }}</v-btn>
    </p>
    <Trouble v-if="error" :trouble="troubleOf(error)" quiet />
  </section>
</template>

<style scoped>
.card {
  border: solid var(--rule);
  border-width: 1px 0;
  padding: 10px 0;
}
p {
  margin: 0 0 6px;
  max-width: 76ch;
}
</style>
