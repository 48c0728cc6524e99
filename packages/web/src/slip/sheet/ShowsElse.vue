<script lang="ts">
/** "It shows something else": what the family's modes look like, what each means now, kept as a line. */
</script>

<script setup lang="ts">
import type { Job, ModeShown } from '@plain-slate/api'
import { computed, ref } from 'vue'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'

const props = defineProps<{ job: Job; wanted: ModeShown | null }>()
const say = useSay()
const { tell, may } = useJob()
const open = ref(false)
const said = ref<ModeShown | 'none'>()
const looks = computed(() => props.job.family?.looks ?? [])
async function choose(mode: ModeShown | 'none') {
  said.value = mode
  await tell([{ topic: 'screen.shows', answer: mode === 'none' ? mode : mode.id }])
}
const answer = computed(() => {
  if (said.value === undefined) return ''
  if (said.value === 'none') return say('write.shows.none.do')
  const same = said.value.id === props.wanted?.id
  const what = same
    ? say('write.shows.same')
    : say('write.shows.other', { mode: props.wanted?.name ?? '' })
  const { id, name } = said.value
  const alike = looks.value.find(({ mode }) => mode.id === id)?.confusedWith ?? []
  const also = alike.length === 0 ? '' : alike.map((one) => say('write.shows.alike', one)).join(' ')
  return `${say('write.shows.says', { mode: name, what })} ${also}`.trim()
})
</script>

<template>
  <span class="no-print">
    <button type="button" class="act" :aria-expanded="open" @click="open = !open">
      {{ say('write.shows') }}
    </button>
    <span v-if="open" class="looks" role="group" :aria-label="say('write.shows.which')">
      <b>{{ say('write.shows.which') }}</b>
      <button
        v-for="one in looks"
        :key="one.mode.id"
        type="button"
        class="act"
        :disabled="!may"
        @click="choose(one.mode)"
      >
        {{ one.looks }}
      </button>
      <button type="button" class="act" :disabled="!may" @click="choose('none')">
        {{ say('write.shows.none') }}
      </button>
      <span v-if="answer !== ''" role="status" class="answer">{{ answer }}</span>
    </span>
  </span>
</template>

<style scoped>
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  margin: 6px 0;
  padding: 8px 12px;
  border-left: 4px solid var(--line);
  background: var(--raised);
  font-size: 14px;
}
.answer {
  flex-basis: 100%;
}
</style>
