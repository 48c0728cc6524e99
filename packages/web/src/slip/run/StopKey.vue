<script lang="ts">
/**
 * Escape, held: it stops a run. That it is held, that a stop is being asked for, and why none was, is said here at
 * once; what the stop then waits for is the run's own to say.
 */
</script>

<script setup lang="ts">
import type { RunShown } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { useHeldKey } from '../../keys/hold-key.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'

const props = defineProps<{
  run: RunShown
  /** Whether the key means anything now. */
  active: boolean
}>()
const say = useSay()
const client = useQueryClient()
const stop = useChange('runStop')

async function stopIt() {
  await stop.mutateAsync({ params: { id: props.run.id } }).catch(() => undefined)
  renew(client, 'run')
}
const isDown = useHeldKey(
  'Escape',
  () => props.active && props.run.stop === null && !stop.isPending.value,
  () => void stopIt(),
)
</script>

<template>
  <p v-if="run.stop" class="amiss" role="status">{{ say(`run.stop.waits.${run.stop}`) }}</p>
  <p v-else-if="stop.isPending.value" class="amiss" role="status">{{ say('run.stop.asks') }}</p>
  <p v-else-if="isDown" class="amiss" role="status">{{ say('run.stop.held') }}</p>
  <Trouble v-if="stop.error.value" :trouble="troubleOf(stop.error.value)" quiet />
</template>
