<script setup lang="ts">
import { computed } from 'vue'
import Margin from '../../parts/Margin.vue'
import { useSay } from '../../base/said.ts'
import FindingList from '../sheet/FindingList.vue'
import { useRoutes } from '../sheet/routes.ts'

const say = useSay()
const { asked, inHand, number } = useRoutes()
const shown = computed(() => asked.value ?? inHand.value)
const title = computed(() => {
  if (shown.value === undefined) return ''
  const about = { title: shown.value.title }
  return asked.value === undefined ? say('routes.findings', about) : say('routes.why', about)
})
/** What would fit in its place, where that is something else. */
const near = computed(() =>
  asked.value?.nearest === asked.value?.title ? undefined : (asked.value?.nearest ?? undefined),
)
const right = computed(() => {
  const all = shown.value?.findings ?? []
  const count = (verdict: string) => all.filter((one) => one.verdict === verdict).length
  return say('routes.findings.right', { fits: count('fits'), ifs: count('fits-if') })
})
</script>

<template>
  <Margin v-if="shown" :title="title" :right="right">
    <p v-if="asked && near" class="dim small">{{ say('routes.nearest', { title: near }) }}</p>
    <FindingList :findings="shown.findings" :number="number" :package="shown.package" />
  </Margin>
</template>
