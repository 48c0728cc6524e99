<script lang="ts">
/** Letting a slip wait, stopping, declining, closing it, opening it again; with a reason. */
</script>

<script setup lang="ts">
import type { Slip } from '@plain-slate/api'
import type { SlipState } from '@plain-slate/core'
import { nextStates } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{ slip: Slip }>()
const say = useSay()
const client = useQueryClient()
const change = useChange('slipState')
const reason = ref('')

async function go(state: SlipState) {
  const input = { params: { number: props.slip.number }, body: { state, reason: reason.value } }
  const done = await change.mutateAsync(input).catch(() => undefined)
  if (done === undefined) return
  reason.value = ''
  renew(client, 'slip')
}
</script>

<template>
  <section class="no-print">
    <h2>
      {{ say('slip.state') }} <small>{{ say(`state.${slip.state}`) }}</small>
    </h2>
    <div class="acts">
      <v-text-field v-model="reason" :label="say('slip.state.reason')" maxlength="2000" />
      <div class="row">
        <v-btn
          v-for="state in nextStates(slip.state)"
          :key="state"
          variant="outlined"
          :disabled="change.isPending.value"
          @click="go(state)"
        >
          {{ say(`slip.state.to.${state}`) }}
        </v-btn>
      </div>
    </div>
    <Trouble v-if="change.error.value" :trouble="troubleOf(change.error.value)" quiet />
  </section>
</template>

<style scoped>
.acts {
  display: grid;
  gap: 10px;
  max-width: 640px;
}
</style>
