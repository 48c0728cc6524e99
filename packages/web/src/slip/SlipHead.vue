<script lang="ts">
/** A slip's front page: its head, changing it beside a colleague, its state, withdrawing texts. */
</script>

<script setup lang="ts">
import { reaches } from '@plain-slate/core'
import { computed } from 'vue'
import Resource from '../parts/Resource.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../said.ts'
import HeadForm from './HeadForm.vue'
import HeadView from './HeadView.vue'
import StateActs from './StateActs.vue'
import Withdraw from './Withdraw.vue'
import { useSlip } from './slip.ts'

const say = useSay()
const session = useSessionStore()
const { slip } = useSlip()
const mayChange = computed(() => reaches(session.person?.role, 'technician'))
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
        data.state === 'open' || data.state === 'waiting'
          ? say(`stage.${data.stage}.will`)
          : say('slip.state.ended', { state: say(`state.${data.state}`) })
      }}
    </p>
    <HeadForm v-if="mayChange && ['open', 'waiting'].includes(data.state)" :key="data.number" :slip="data" />
    <HeadView v-else :slip="data" />
    <template v-if="mayChange">
      <StateActs :slip="data" />
      <Withdraw v-if="!data.withdrawn" :slip="data" />
    </template>
  </Resource>
</template>
