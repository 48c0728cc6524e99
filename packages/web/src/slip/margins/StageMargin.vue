<script lang="ts">
/** The margin of a stage: its findings where it has any, else the slip's notes and history. */
</script>

<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import FirmwareMargin from './FirmwareMargin.vue'
import PlanMargin from './PlanMargin.vue'
import SlipMargin from './SlipMargin.vue'
import WriteMargin from './WriteMargin.vue'
import WhatIf from '../whatif/WhatIf.vue'

const route = useRoute()
const margin = computed(() => {
  switch (String(route.params['stage'])) {
    case 'firmware':
      return route.query['if'] === undefined ? FirmwareMargin : WhatIf
    case 'plan':
    case 'ready':
      return PlanMargin
    case 'write':
      return WriteMargin
    default:
      return SlipMargin
  }
})
</script>

<template>
  <component :is="margin" />
</template>
