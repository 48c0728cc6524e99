<script lang="ts">
/** Erasing a slip's personal text: named, held, and with a second person's PIN. */
</script>

<script setup lang="ts">
import type { Slip } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import HoldButton from '../../keys/HoldButton.vue'
import Trouble from '../../parts/Trouble.vue'
import SecondPerson from '../../people/SecondPerson.vue'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'

const props = defineProps<{ slip: Slip }>()
const say = useSay()
const client = useQueryClient()
const withdraw = useChange('slipWithdraw')
const open = ref(false)
const second = ref<string>()
const pin = ref('')

async function go() {
  if (second.value === undefined) return
  const input = {
    params: { number: props.slip.number },
    body: { second: { person: second.value, pin: pin.value } },
  }
  pin.value = ''
  const done = await withdraw.mutateAsync(input).catch(() => undefined)
  if (done !== undefined) renew(client, 'slip')
}
</script>

<template>
  <section class="no-print">
    <h2>
      <button type="button" class="act" :aria-expanded="open" @click="open = !open">
        {{ say('slip.withdraw') }}
      </button>
    </h2>
    <div v-if="open">
      <p class="lede">{{ say('slip.withdraw.what', { number: slip.number }) }}</p>
      <div class="form">
        <SecondPerson v-model:person="second" v-model:pin="pin" />
        <div class="wide">
          <HoldButton
            :label="say('slip.withdraw.go', { number: slip.number })"
            :disabled="second === undefined || pin.length < 4 || withdraw.isPending.value"
            @held="go"
          />
        </div>
      </div>
      <Trouble v-if="withdraw.error.value" :trouble="troubleOf(withdraw.error.value)" quiet />
    </div>
  </section>
</template>
