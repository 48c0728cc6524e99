<script lang="ts">
/** What is due on a later day: the days that were put down, and those that ought to be, each with what suggests it. */
</script>

<script setup lang="ts">
import type { Job } from '@plain-slate/api'
import type { DueKind } from '@plain-slate/core'
import { dueTopic, isDay, leastOf, reaches } from '@plain-slate/core'
import { computed, reactive } from 'vue'
import { useSay } from '../../base/said.ts'
import { useSessionStore } from '../../people/session.ts'
import { useJob } from '../job.ts'

const props = defineProps<{ dues: Job['dues']; only?: readonly DueKind[] }>()
const say = useSay()
const session = useSessionStore()
const { tell } = useJob()
/** A day is looked at after the slip was closed as well. */
const may = computed(() => reaches(session.person?.role, leastOf('slip.line')))
const isMine = ({ what }: { readonly what: DueKind }) => props.only?.includes(what) !== false
const standing = computed(() => props.dues.standing.filter(isMine))
const asked = computed(() => props.dues.asked.filter(isMine))
const days = reactive<Partial<Record<DueKind, string>>>({})
const dayOf = (what: DueKind, on: string | null) => days[what] ?? on ?? ''
const put = (what: DueKind, answer: string) => tell([{ topic: dueTopic(what), answer }])
</script>

<template>
  <section
    v-if="standing.length + asked.length > 0"
    class="dues"
    aria-labelledby="dues"
    data-claim="dues"
  >
    <h2 id="dues">
      {{ say('dues.title') }} <small>{{ say('dues.small') }}</small>
    </h2>
    <ul>
      <li v-for="one in standing" :key="one.what" :data-due="one.what">
        <b>{{ say(`due.${one.what}`) }}</b>
        <span class="mono">{{ one.on }}</span>
        <span v-if="may" class="no-print">
          <button type="button" class="act" @click="put(one.what, 'done')">
            {{ say('dues.done') }}
          </button>
        </span>
      </li>
      <li v-for="one in asked" :key="one.what" :data-due="one.what" class="open no-print">
        <v-text-field
          :model-value="dayOf(one.what, one.on)"
          class="mono"
          :label="`${say(`due.${one.what}`)} ${say('dues.day')}`"
          maxlength="10"
          autocomplete="off"
          hide-details
          @update:model-value="(day: string) => (days[one.what] = day)"
        />
        <span class="dim small">{{ say(`due.${one.what}.why`) }}</span>
        <span v-if="may" class="row">
          <button
            type="button"
            class="act"
            :disabled="!isDay(dayOf(one.what, one.on))"
            :aria-label="say('dues.put.of', { what: say(`due.${one.what}`) })"
            @click="put(one.what, dayOf(one.what, one.on))"
          >
            {{ say('dues.put') }}
          </button>
          <button
            type="button"
            class="act"
            :aria-label="say('dues.none.of', { what: say(`due.${one.what}`) })"
            @click="put(one.what, 'not-needed')"
          >
            {{ say('dues.none') }}
          </button>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 26em) minmax(0, 1fr) auto;
  gap: 2px 16px;
  align-items: baseline;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
@media (max-width: 700px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
