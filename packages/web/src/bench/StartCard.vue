<script lang="ts">
/** Starting a plan from the Bench: the run is what its port shows from then on. */
</script>

<script setup lang="ts">
import type { PlanShown } from '@plain-slate/api'
import type { Intent } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import StartFrame from '../parts/StartFrame.vue'
import { renew, useChange } from '../server/query.ts'
import { usePort } from './bench-query.ts'

const props = defineProps<{
  plan: PlanShown
  asked: { port: string; package: string; intent: Intent; keepData: boolean }
}>()
const emit = defineEmits<{ again: [] }>()
const client = useQueryClient()
const start = useChange('runStart')
const { change } = usePort()

async function go() {
  const body = { ...props.asked, digest: props.plan.digest }
  const started = await start.mutateAsync({ body }).catch(() => undefined)
  renew(client, 'bench')
  if (started !== undefined) change({ package: '' })
}
</script>

<template>
  <StartFrame
    :plan="plan"
    :port="plan.port"
    :busy="start.isPending.value"
    :error="start.error.value"
    @start="go"
    @again="emit('again')"
  />
</template>
