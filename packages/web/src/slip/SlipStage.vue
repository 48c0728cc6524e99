<script lang="ts">
/** A stage that is still to be filled: where the slip stands, and in one sentence what it will do. */
</script>

<script setup lang="ts">
import type { Slip } from '@plain-slate/api'
import type { Stage } from '@plain-slate/core'
import { STAGES, stagePlace } from '@plain-slate/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import Resource from '../parts/Resource.vue'
import { useSay } from '../said.ts'
import { useSlip } from './slip.ts'

const say = useSay()
const route = useRoute()
const { slip, number } = useSlip()
const stage = computed<Stage>(() => STAGES.find((one) => one === route.params['stage']) ?? 'intake')

function title(data: Slip): string {
  const at = say(`stage.${data.stage}`)
  const here = say(`stage.${stage.value}`)
  switch (stagePlace(stage.value, data.stage)) {
    case 'here':
      return say('slip.title', {
        device: data.device,
        intent: say(`intent.${data.intent}`),
        stage: at,
      })
    case 'ahead':
      return say('slip.title.waits', { stage: at, this: here })
    case 'behind':
      return say('slip.title.behind', { stage: at, this: here })
  }
}
</script>

<template>
  <Resource v-slot="{ data }" :read="slip">
    <h1>{{ title(data) }}</h1>
    <p class="lede">{{ say(`stage.${stage}.will`) }}</p>
    <p>
      <router-link :to="`/slips/${number}`">{{ say('slip.head') }}</router-link>
    </p>
  </Resource>
</template>
