<script setup lang="ts">
import { computed } from 'vue'
import Margin from '../parts/Margin.vue'
import { useSay } from '../said.ts'
import FindingList from './FindingList.vue'
import { usePlanPage } from './plan-page.ts'

const say = useSay()
const { plan } = usePlanPage()
const right = computed(() =>
  plan.value?.findings.every(({ verdict }) => verdict === 'fits') === true
    ? say('plan.margin.met')
    : '',
)
</script>

<template>
  <Margin v-if="plan" :title="say('plan.margin')" :right="right">
    <FindingList :findings="plan.findings" />
    <div class="note">
      <b>{{ say('plan.margin.battery', { needs: plan.needs }) }}</b>
    </div>
    <div class="note">
      <b>{{
        plan.wayBack === null
          ? say('plan.back.none')
          : say('plan.margin.back', { title: plan.wayBack })
      }}</b>
    </div>
    <div class="note">
      <b>{{ say('plan.margin.time', { n: plan.ownRuns }) }}</b>
    </div>
  </Margin>
</template>

<style scoped>
.note {
  border-top: 1px solid var(--rule);
  padding: 8px 0 8px 26px;
}
</style>
