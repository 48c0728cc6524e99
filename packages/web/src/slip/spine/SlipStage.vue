<script lang="ts">
/** The stage that the address names. Each comes when it is first opened. */
</script>

<script setup lang="ts">
import type { Stage } from '@plain-slate/core'
import { STAGES } from '@plain-slate/core'
import type { Component } from 'vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'

const SHEETS: Readonly<Record<Stage, Component>> = {
  intake: defineAsyncComponent(() => import('../stages/Intake.vue')),
  readings: defineAsyncComponent(() => import('../stages/Readings.vue')),
  firmware: defineAsyncComponent(() => import('../stages/Firmware.vue')),
  proof: defineAsyncComponent(() => import('../stages/Proof.vue')),
  compare: defineAsyncComponent(() => import('../stages/Compare.vue')),
  plan: defineAsyncComponent(() => import('../stages/Plan.vue')),
  ready: defineAsyncComponent(() => import('../stages/Ready.vue')),
  write: defineAsyncComponent(() => import('../stages/Write.vue')),
  'first-start': defineAsyncComponent(() => import('../stages/FirstStart.vue')),
  'hand-back': defineAsyncComponent(() => import('../stages/HandBack.vue')),
}
const route = useRoute()
const stage = computed<Stage>(() => STAGES.find((one) => one === route.params['stage']) ?? 'intake')
</script>

<template>
  <component :is="SHEETS[stage]" :key="`${stage} ${String(route.params['number'])}`" />
</template>
