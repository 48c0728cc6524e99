<script lang="ts">
/** Ready: what the system sees by itself, and what people sign for; all of it before a write may start. */
</script>

<script setup lang="ts">
import type { Job, Ready } from '@plain-slate/api'
import { computed } from 'vue'
import Resource from '../../parts/Resource.vue'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import CheckList from '../sheet/CheckList.vue'
import SignRow from '../sheet/SignRow.vue'
import StageSheet from '../sheet/StageSheet.vue'
import WayCard from '../way/WayCard.vue'
import { useLineWords } from '../../parts/line-words.ts'
import { standingOf, useJob } from '../job.ts'

const say = useSay()
const words = useLineWords()
const { when } = useShop()
const { params, may, tell, put } = useJob()
const ready = useRead('jobReady', () => ({ params: params.value }))

function title(data: Job): string {
  if (data.plan === null) return say('ready.title.none')
  const now = standingOf(data, 'ready')
  return now?.is === 'open'
    ? say('ready.title.open', { n: Number(now.facts['open']) })
    : say('ready.title.done')
}
const failing = computed(() => ready.data.value?.checks.filter(({ holds }) => !holds) ?? [])
const holding = computed(() => ready.data.value?.checks.filter(({ holds }) => holds) ?? [])
/** What has one answer only can be signed at once; what has several is answered one by one. */
const open = computed(() =>
  (ready.data.value?.signed ?? [])
    .filter(({ signed, answers }) => !signed && answers.length === 1)
    .map(({ topic, answers }) => ({ topic, answer: answers[0] ?? 'done' })),
)
const named = (topic: string, data: Job) => words.topic(topic, data.family?.permission)
/** The answer that stands; a "no" stands too, and signs nothing. */
const wordOf = ({ signed, answer }: Ready['signed'][number]) =>
  signed ? words.answer(answer ?? 'done') : answer === 'no' ? say('ready.refused') : ''
/**
 * Whether taking it back still does something: before a run everything that somebody said; while one goes on an owner's
 * agreement, which holds it.
 */
function isGiven({ topic, answer }: Ready['signed'][number], data: Job): boolean {
  if (data.run === null) return answer !== 'waived'
  return !topic.startsWith('ready.') && standingOf(data, 'write')?.is !== 'done'
}
/** Who signed, or whose word it was that holds no more. */
function saidOf({ by, at, ended }: Ready['signed'][number]): string {
  if (at === null) return ''
  if (ended !== null && by === null) return say('ready.ended.nobody', { ended })
  if (ended !== null) return say('ready.ended', { by: by ?? '', when: when(at), ended })
  return by === null ? '' : say('ready.signed', { by, when: when(at) })
}
</script>

<template>
  <StageSheet stage="ready" :title="title" :lede="() => say('ready.lede')" :error="put.error.value">
    <template #default="{ job: data }">
      <Resource v-slot="{ data: now }" :read="ready">
        <h2>
          {{ say('ready.system') }} <small>{{ say('ready.system.small') }}</small>
        </h2>
        <CheckList v-if="failing.length > 0" :checks="failing" :label="say('ready.failing')" />
        <details v-if="holding.length > 0">
          <summary>{{ say('ready.holding', { n: holding.length }) }}</summary>
          <CheckList :checks="holding" :label="say('ready.holding', { n: holding.length })" />
        </details>
        <details v-for="(way, index) in now.ways" :key="index" class="no-print">
          <summary>{{ say('ready.way', { mode: way.to.name }) }}</summary>
          <WayCard :to="way.to.id" :begin="way.from?.id" />
        </details>
        <h2 id="person">
          {{ say('ready.person') }} <small>{{ say('ready.person.small') }}</small>
        </h2>
        <ul class="asked-list" aria-labelledby="person">
          <SignRow
            v-for="one in now.signed"
            :key="one.topic"
            :topic="one.topic"
            :name="named(one.topic, data)"
            :answers="one.answers"
            :signed="one.signed"
            :word="wordOf(one)"
            :given="isGiven(one, data)"
            >{{ words.besides(one.facts) }} {{ saidOf(one) }}</SignRow
          >
        </ul>
        <p v-if="open.length > 1 && may" class="no-print">
          <button type="button" class="act" @click="tell([...open])">
            {{ say('ready.sign.all') }}
          </button>
        </p>
      </Resource>
    </template>
  </StageSheet>
</template>

<style scoped>
summary {
  padding: 6px 0;
  cursor: pointer;
}
</style>
