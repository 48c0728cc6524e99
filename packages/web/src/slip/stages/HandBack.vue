<script lang="ts">
/** Hand back: what is undone, what is given back, what stays, what comes next, the sheet, and closing. */
</script>

<script setup lang="ts">
import type { Job, PaperShown } from '@plain-slate/api'
import { leastOf, reaches, topicOf } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import Resource from '../../parts/Resource.vue'
import { useSessionStore } from '../../people/session.ts'
import { useSay } from '../../base/said.ts'
import { addressOf } from '../../server/call.ts'
import { renew, useChange, useRead } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import AskGroup from '../sheet/AskGroup.vue'
import Dues from '../sheet/Dues.vue'
import StageSheet from '../sheet/StageSheet.vue'
import { standingOf, useJob } from '../job.ts'
import { useSlip } from '../slip.ts'

const say = useSay()
const client = useQueryClient()
const { when } = useShop()
const session = useSessionStore()
const { job, number, params, put, tell } = useJob()
const { slip } = useSlip()
const proof = useRead('jobProof', () => ({ params: params.value }))
const state = useChange('slipState')
const ready = computed(() => standingOf(job.data.value, 'hand-back')?.says === 'hand-back.close')
const open = computed(() => slip.data.value?.state === 'open')
const isClosed = computed(() => slip.data.value?.state === 'closed')

function title(data: Job): string {
  const now = standingOf(data, 'hand-back')
  if (now?.is === 'done') return say('back.title.done')
  return now?.says === 'hand-back.close'
    ? say('back.title.close')
    : say('back.title.open', { n: Number(now?.facts['n'] ?? 0) })
}
function lede(): string {
  const build = proof.data.value?.facts.find(({ fact }) => fact === 'build')
  if (build === undefined) return ''
  const was = String(build.was ?? '')
  if (build.now === null)
    return say('sheet.was.unasked', { build: was, written: String(build.promised ?? '') })
  return say('back.lede', { from: was, to: String(build.now) })
}
const asked = (data: Job, group: string) =>
  data.handBack
    .filter((topic) => topic.startsWith(`${group}.`))
    .map((topic) => ({
      topic,
      answers: [...(topicOf(topic)?.answers ?? [])],
      name: null,
      needed: true,
    }))
async function careDone(care: Job['care']) {
  if (care === 'none') return
  const answer = care === 'ask-owner' ? 'all-well' : 'deleted'
  await tell([{ topic: CARE[care], answer }])
}
async function close() {
  const body = { state: 'closed', reason: '' } as const
  await state.mutateAsync({ params: params.value, body }).catch(() => undefined)
  renew(client, 'slip')
}
const main = computed(() =>
  ready.value && open.value
    ? {
        label: say('back.close', { number: number.value }),
        act: () => void close(),
        busy: state.isPending.value,
      }
    : undefined,
)
const sheet = (texts: 'with' | 'without') =>
  addressOf('jobSheet', { params: params.value, query: { texts } })
const print = () => window.print()
/** What stays; where nothing does, whether anybody can know that. */
const marksOf = ({ marks, bears, done }: PaperShown) => {
  if (marks.length + bears.length > 0) return marks
  return [done.kind === 'ended' || done.kind === 'cured' ? ('none' as const) : ('unknown' as const)]
}
const mayCare = computed(() => reaches(session.person?.role, leastOf('slip.line')))
const CARE = { 'ask-owner': 'care.well', 'delete-copy': 'care.backup' } as const
const care = useRead('care')
const due = computed(() => {
  const own = care.data.value?.find((one) => one.number === number.value)
  return own === undefined ? '' : when(own.due)
})
</script>

<template>
  <StageSheet
    stage="hand-back"
    :title="title"
    :lede="lede"
    :main="main"
    :error="put.error.value ?? state.error.value"
  >
    <template #default="{ job: data }">
      <section v-if="data.care !== 'none' && isClosed" aria-labelledby="care" data-claim="care">
        <h2 id="care">
          {{ say('back.care') }} <small>{{ say('back.care.small') }}</small>
        </h2>
        <p>
          {{ data.care === 'ask-owner' ? say('back.care.ask', { due }) : say('back.care.delete') }}
        </p>
        <p v-if="mayCare" class="no-print">
          <v-btn variant="outlined" @click="careDone(data.care)">{{
            say(data.care === 'ask-owner' ? 'back.care.well' : 'back.care.deleted')
          }}</v-btn>
        </p>
      </section>
      <AskGroup v-if="asked(data, 'undo').length > 0" group="undo" :topics="asked(data, 'undo')" />
      <AskGroup group="back" :topics="asked(data, 'back')" />
      <Resource v-slot="{ data: now }" :read="proof">
        <h2>{{ say('back.marks') }}</h2>
        <p v-for="mark in marksOf(now.paper)" :key="mark" data-claim="marks">
          {{ say(`back.marks.${mark}`) }}
        </p>
        <p v-for="mark in now.paper.bears" :key="mark" data-claim="bears">
          {{ say('back.marks.bears', { mark }) }}
        </p>
      </Resource>
      <Dues :dues="data.dues" />
    </template>
    <template #beside />
  </StageSheet>
  <p class="row no-print papers">
    <a :href="sheet('with')">{{ say('back.sheet') }}</a>
    <a :href="sheet('without')">{{ say('back.sheet.plain') }}</a>
    <router-link :to="`/book?slip=${number}`">{{ say('back.record') }}</router-link>
    <button type="button" class="act" @click="print">{{ say('back.print') }}</button>
  </p>
</template>

<style scoped>
.papers {
  gap: 20px;
  margin-top: 14px;
}
</style>
