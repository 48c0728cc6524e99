<script lang="ts">
/** Letting a slip wait, stopping, declining, closing it, opening it again; with a reason. */
</script>

<script setup lang="ts">
import type { Slip } from '@plain-slate/api'
import type { SlipState } from '@plain-slate/core'
import { nextStates } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import Trouble from '../../parts/Trouble.vue'
import { vFocus } from '../../parts/focus.ts'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'

const props = defineProps<{ slip: Slip }>()
const say = useSay()
const client = useQueryClient()
const change = useChange('slipState')
const reason = ref('')
/** The state that was asked for and waits for its reason. */
const wanted = ref<SlipState>()

async function go(state: SlipState) {
  const input = { params: { number: props.slip.number }, body: { state, reason: reason.value } }
  const done = await change.mutateAsync(input).catch(() => undefined)
  if (done === undefined) return
  reason.value = ''
  wanted.value = undefined
  renew(client, 'slip')
}
</script>

<template>
  <section class="no-print">
    <h2>
      {{ say('slip.state') }} <small>{{ say(`state.${slip.state}`) }}</small>
    </h2>
    <p class="row">
      <button
        v-for="state in nextStates(slip.state)"
        :key="state"
        type="button"
        class="act"
        :aria-expanded="wanted === state"
        @click="wanted = wanted === state ? undefined : state"
      >
        {{ say(`slip.state.to.${state}`) }}
      </button>
    </p>
    <form v-if="wanted" class="acts" @submit.prevent="go(wanted)">
      <v-text-field v-model="reason" v-focus :label="say('slip.state.reason')" maxlength="2000" />
      <v-btn type="submit" variant="outlined" :disabled="change.isPending.value">
        {{ say(`slip.state.to.${wanted}`) }}
      </v-btn>
    </form>
    <Trouble v-if="change.error.value" :trouble="troubleOf(change.error.value)" quiet />
  </section>
</template>

<style scoped>
.acts {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  max-width: 640px;
}
</style>
