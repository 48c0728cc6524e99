<script lang="ts">
/** A slip's spine: number, device, promise, the ten stages; each has a key, 1 to 0. */
</script>

<script setup lang="ts">
import type { Slip } from '@plain-slate/api'
import { STAGES } from '@plain-slate/core'
import { computed, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useShortcuts } from '../../keys/shortcuts.ts'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'
import StageMark from './StageMark.vue'
import { useJob, useStageWords } from '../job.ts'
import { useSlip } from '../slip.ts'

const say = useSay()
const route = useRoute()
const router = useRouter()
const { when } = useShop()
const { number, slip } = useSlip()
const { job } = useJob()
const words = useStageWords()

const whoseAndWhen = ({ customer, due }: Slip) =>
  [customer, due === null ? null : say('slip.due', { when: when(due) })]
    .filter((part) => part !== null)
    .join(' · ')
/* On a phone the stages stand in one row: the present one is brought into sight. */
const list = useTemplateRef<HTMLElement>('list')
const present = computed(() => [route.params['stage'], job.data.value === undefined])
watch(present, () => showPresent(list.value), { flush: 'post', immediate: true })
function showPresent(of: HTMLElement | null) {
  const on = of?.querySelector<HTMLElement>('li.on')
  if (of === null || on === null || on === undefined) return
  of.scrollLeft = on.offsetLeft - (of.clientWidth - on.clientWidth) / 2
}
const address = (stage: string) => `/slips/${number.value}/${stage}`
useShortcuts(
  STAGES.map((stage, index) => ({
    key: String((index + 1) % 10),
    shown: '1 … 0',
    label: 'keys.stages' as const,
    group: 'slip' as const,
    unlisted: index > 0,
    act: () => void router.push(address(stage)),
  })),
)
</script>

<template>
  <div class="who">
    <span class="dim">{{ say('slip.label') }}</span>
    <router-link class="mono number" :to="`/slips/${number}`">{{ number }}</router-link>
    <template v-if="slip.data.value">
      <b>{{ slip.data.value.device }}</b>
      <span class="dim">{{ whoseAndWhen(slip.data.value) }}</span>
    </template>
  </div>
  <ol v-if="job.data.value" ref="list">
    <li
      v-for="(standing, index) in job.data.value.stages"
      :key="standing.stage"
      :class="[standing.is, { on: route.params['stage'] === standing.stage }]"
      :data-stage="standing.stage"
    >
      <router-link
        :to="address(standing.stage)"
        :aria-current="route.params['stage'] === standing.stage ? 'page' : undefined"
        :aria-keyshortcuts="String((index + 1) % 10)"
      >
        <StageMark
          :is="standing.is"
          :at="standing.stage === job.data.value.at"
          :on="route.params['stage'] === standing.stage"
        />
        <span class="name">
          {{ say(`stage.${standing.stage}`) }}
          <span class="visually-hidden">{{ say(`job.mark.${standing.is}`) }}</span>
          <span v-if="standing.is !== 'waits'" class="result">{{ words(standing) }}</span>
        </span>
      </router-link>
    </li>
  </ol>
</template>

<style scoped>
.who {
  padding-right: 14px;
  font-size: 13px;
  margin-bottom: 12px;
}
.who > * {
  display: block;
}
.who b {
  font-size: 15px;
  line-height: 1.25;
}
.number {
  font-weight: 600;
  font-size: 22px;
  line-height: 1;
  margin: 2px 0 6px;
  color: var(--ink);
  text-decoration: none;
}
.number:hover {
  text-decoration: underline;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li a {
  display: grid;
  grid-template-columns: 22px 1fr;
  gap: 8px;
  align-items: start;
  padding: 5px 8px 5px 0;
  color: var(--ink);
  text-decoration: none;
  border: 1px solid transparent;
  border-right: 0;
  border-radius: 3px 0 0 3px;
}
li a > i {
  justify-self: center;
  margin-top: 4px;
}
.name {
  font-weight: 550;
}
.waits .name {
  color: var(--ink-2);
}
li.on a {
  background: var(--sheet);
  border-color: var(--rule);
}
li.on .name {
  font-weight: 700;
}
li a:hover .name {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.result {
  display: block;
  font-size: 12.5px;
  font-weight: 400;
  color: var(--ink-2);
  line-height: 1.25;
}
@media (max-width: 700px) {
  ol {
    position: relative;
    display: flex;
    overflow-x: auto;
  }
  li a {
    grid-template-columns: 16px auto;
    white-space: nowrap;
    padding-right: 12px;
  }
  .result {
    display: none;
  }
}
</style>
