<script lang="ts">
/** A slip's front page: its head, changing it beside a colleague, its state, withdrawing texts. */
</script>

<script setup lang="ts">
import { reaches } from '@plain-slate/core'
import type { Slip } from '@plain-slate/api'
import { computed, ref, watch } from 'vue'
import { useShortcuts } from '../keys/shortcuts.ts'
import Resource from '../parts/Resource.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../said.ts'
import HeadForm from './HeadForm.vue'
import HeadView from './HeadView.vue'
import { keptDraft } from './kept.ts'
import StateActs from './StateActs.vue'
import Withdraw from './Withdraw.vue'
import { useSlip } from './slip.ts'

const say = useSay()
const session = useSessionStore()
const { slip, number } = useSlip()
const mayChange = computed(() => reaches(session.person?.role, 'technician'))
const isLive = ({ state }: Slip) => state === 'open' || state === 'waiting'
/** What was typed and not saved opens the form again. */
const changing = ref(keptDraft(number.value) !== undefined)
watch(number, (to) => (changing.value = keptDraft(to) !== undefined))
useShortcuts([
  {
    key: 'e',
    shown: 'E',
    label: 'slip.head.change',
    group: 'slip',
    act: () => {
      const data = slip.data.value
      if (data !== undefined && mayChange.value && isLive(data)) changing.value = true
    },
  },
])
</script>

<template>
  <Resource v-slot="{ data }" :read="slip">
    <h1>
      {{
        say('slip.title', {
          device: data.device,
          intent: say(`intent.${data.intent}`),
          stage: say(`stage.${data.stage}`),
        })
      }}
    </h1>
    <p class="lede">
      {{
        isLive(data)
          ? say(`stage.${data.stage}.will`)
          : say('slip.state.ended', { state: say(`state.${data.state}`) })
      }}
    </p>
    <HeadForm v-if="changing" :key="data.number" :slip="data" @done="changing = false" />
    <template v-else>
      <HeadView :slip="data" />
      <p v-if="mayChange && isLive(data)" class="no-print">
        <v-btn variant="outlined" @click="changing = true">
          {{ say('slip.head.change') }}<kbd>E</kbd>
        </v-btn>
      </p>
    </template>
    <template v-if="mayChange">
      <StateActs :slip="data" />
      <Withdraw v-if="!data.withdrawn" :slip="data" />
    </template>
  </Resource>
</template>
