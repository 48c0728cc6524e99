<script lang="ts">
/** Starting the plan that a slip's people took and signed for. */
</script>

<script setup lang="ts">
import type { Job, PlanShown } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import StartFrame from './StartFrame.vue'
import { renew, useChange } from '../../server/query.ts'
import { useJob } from '../job.ts'
import { useSlip } from '../slip.ts'

const props = defineProps<{ plan: PlanShown; job: Job }>()
const client = useQueryClient()
const { params } = useJob()
const { slip } = useSlip()
const start = useChange('jobStart')
const owner = computed(() => slip.data.value?.customer ?? '')
function look() {
  for (const topic of ['slip', 'bench', 'run'] as const) renew(client, topic)
}

async function go() {
  const input = { params: params.value, body: { digest: props.plan.digest } }
  await start.mutateAsync(input).catch(() => undefined)
  look()
}
</script>

<template>
  <StartFrame
    :plan="plan"
    :port="job.device?.port ?? ''"
    :owner="owner"
    :busy="start.isPending.value"
    :error="start.error.value"
    @start="go"
    @again="look"
  />
</template>
