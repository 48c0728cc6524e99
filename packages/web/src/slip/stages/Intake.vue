<script lang="ts">
/** Intake: what must survive, whose it is, its condition, what they agree to, what came with it, what works. */
</script>

<script setup lang="ts">
import type { Job } from '@plain-slate/api'
import { HALTS } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'
import AllAtOnce from '../sheet/AllAtOnce.vue'
import AskGroup from '../sheet/AskGroup.vue'
import NameBuild from '../sheet/NameBuild.vue'
import History from '../sheet/History.vue'
import StageSheet from '../sheet/StageSheet.vue'
import { useLineWords } from '../../parts/line-words.ts'
import { standingOf, useJob } from '../job.ts'
import { useSlip } from '../slip.ts'

const say = useSay()
const { when } = useShop()
const { job, put, may, line } = useJob()
const words = useLineWords()
const { slip } = useSlip()
const standing = computed(() => standingOf(job.data.value, 'intake'))
const halt = computed(() =>
  HALTS.find((one) => standing.value?.is === 'halted' && standing.value.says === `intake.${one}`),
)
const CAUTIONS = ['cell', 'account', 'wet', 'proof'] as const
const caution = computed(() => CAUTIONS.find((one) => one === halt.value))

function title(data: Job): string {
  const device = slip.data.value?.device ?? ''
  const now = standingOf(data, 'intake')
  if (halt.value !== undefined) return say(`intake.title.${halt.value}`)
  if (now?.is === 'open') return say('intake.title.open', { device, n: Number(now.facts['n']) })
  const wish = say(data.keepData ? 'job.intake.must' : 'job.intake.may-go')
  return say('intake.title.done', { device, wish })
}
function lede(): string {
  const head = slip.data.value
  if (head === undefined) return ''
  const intent = say(`intent.${head.intent}`)
  const due = head.due === null ? '' : `, ${say('slip.due', { when: when(head.due) })}`
  return say('intake.lede', { intent: intent.charAt(0).toUpperCase() + intent.slice(1), due })
}
const of = (data: Job, group: string) => data.topics.filter((one) => one.group === group)
const theirs = (data: Job) => {
  const all = of(data, 'survive')
  const named = all.filter(({ name }) => name !== null)
  return named.length > 0 ? named : all
}
const others = (data: Job) =>
  of(data, 'survive').filter((one) => !theirs(data).some(({ topic }) => topic === one.topic))
const allOf = (data: Job, group: string, answer: string) =>
  of(data, group).map(({ topic }) => ({ topic, answer }))
/** Things that nobody asked about yet, said at once not to be there. */
const unasked = (data: Job) =>
  others(data)
    .filter(({ topic }) => line(topic) === undefined)
    .map(({ topic }) => ({ topic, answer: 'not-there' }))
const noneThere = (data: Job) =>
  say('intake.none-there', {
    things: unasked(data)
      .map(({ topic }) => words.topic(topic))
      .join(', '),
  })
</script>

<template>
  <StageSheet stage="intake" :title="title" :lede="lede" :error="put.error.value">
    <template #default="{ job: data }">
      <p v-if="caution" class="amiss" role="alert">{{ say(`intake.${caution}.do`) }}</p>
      <AskGroup group="survive" :topics="theirs(data)" />
      <AskGroup v-if="others(data).length > 0" group="more" :topics="others(data)">
        <AllAtOnce :label="noneThere(data)" :lines="unasked(data)" />
      </AskGroup>
      <AskGroup group="owner" :topics="of(data, 'owner')" />
      <AskGroup group="condition" :topics="of(data, 'condition')" />
      <AskGroup group="history" :topics="of(data, 'history')">
        <History v-if="line('history.before')?.answer === 'tried' && may" />
      </AskGroup>
      <AskGroup
        v-if="of(data, 'lighter').length > 0"
        group="lighter"
        :topics="of(data, 'lighter')"
      />
      <AskGroup group="want" :topics="of(data, 'want')"><NameBuild /></AskGroup>
      <AskGroup group="use" :topics="of(data, 'use')" />
      <AskGroup group="consent" :topics="of(data, 'consent')" />
      <AskGroup group="accessory" :topics="of(data, 'accessory')">
        <AllAtOnce :label="say('intake.all-none')" :lines="allOf(data, 'accessory', 'none')" />
      </AskGroup>
      <AskGroup group="function" :topics="of(data, 'function')">
        <AllAtOnce :label="say('intake.all-work')" :lines="allOf(data, 'function', 'works')" />
      </AskGroup>
    </template>
  </StageSheet>
</template>
