<script lang="ts">
/**
 * What must be done before the device leaves its running system: by whom it was said, or what is seen of it; what is
 * open holds up every leg out of there, unless somebody goes on without it and says why.
 */
</script>

<script setup lang="ts">
import type { LeaveShown } from '@plain-slate/api'
import { reaches } from '@plain-slate/core'
import { computed, ref, useTemplateRef } from 'vue'
import { useSessionStore } from '../../people/session.ts'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'
import { useLineWords } from '../../parts/line-words.ts'
import { useJob } from '../job.ts'
import SignRow from './SignRow.vue'

const props = defineProps<{ leave: LeaveShown; permission: string; steps: readonly string[] }>()
const say = useSay()
const words = useLineWords()
const { when } = useShop()
const session = useSessionStore()
const { may, tell } = useJob()
type Item = LeaveShown['items'][number]

const mayWaive = computed(() => may.value && reaches(session.person?.role, 'technician'))
const waiving = ref(false)
const reason = ref('')
async function waive() {
  await tell([{ topic: 'ready.leave', answer: 'waived', note: reason.value.trim() }])
  reason.value = ''
  waiving.value = false
}
/** What stands beside it; nothing where somebody is to sign. */
function word({ topic, answer, holds }: Item): string {
  if (holds) return answer === null ? say('ready.holds') : words.answer(answer)
  return topic === null ? say('ready.fails') : ''
}
const name = ({ item, topic }: Item) =>
  item === 'tally' || item === 'charge'
    ? say(`leave.name.${item}`)
    : words.topic(topic ?? '', props.permission)
const stepsOf = (steps: readonly string[]) =>
  steps.map((step, index) => say('leave.step', { n: index + 1, step })).join(' ')
/** What is seen of it, or what goes with it. */
function detail({ item, holds, facts, by, at }: Item): string {
  if (item === 'tally') return say(holds ? 'leave.tally.holds' : 'leave.tally.open')
  if (item === 'charge') {
    const needed = String(facts['needed'])
    return facts['here'] === undefined
      ? say('leave.charge.unseen', { needed })
      : say('leave.charge.here', { here: String(facts['here']), needed })
  }
  if (by !== null && at !== null) return say('ready.signed', { by, when: when(at) })
  return item === 'permission' ? stepsOf(props.steps) : words.besides(facts)
}
const root = useTemplateRef('root')
defineExpose({
  focus: () => root.value?.querySelector<HTMLElement>('li.open button, .waive button')?.focus(),
})
</script>

<template>
  <section ref="root" :class="{ amiss: leave.open > 0 }" data-claim="leave" aria-labelledby="leave">
    <h2 id="leave">
      {{ say('leave.title', { mode: leave.mode }) }}
      <small>{{ leave.open > 0 ? say('leave.open', { n: leave.open }) : say('leave.done') }}</small>
    </h2>
    <component :is="leave.open > 0 ? 'div' : 'details'">
      <summary v-if="leave.open === 0">{{ say('leave.items', { n: leave.items.length }) }}</summary>
      <ul class="asked-list" aria-labelledby="leave">
        <SignRow
          v-for="one in leave.items"
          :key="one.item"
          :topic="one.topic ?? one.item"
          :name="name(one)"
          :answers="one.answers"
          :signed="one.holds"
          :word="word(one)"
          :given="one.topic !== null"
          >{{ detail(one) }}</SignRow
        >
      </ul>
    </component>
    <p v-if="leave.waived" data-claim="leave.waived">
      {{
        say('leave.waived', {
          by: leave.waived.by ?? '',
          when: when(leave.waived.at),
          note: leave.waived.note ?? '',
        })
      }}
    </p>
    <template v-else-if="leave.open > 0 && mayWaive">
      <p class="waive no-print">
        <button type="button" class="act" :aria-expanded="waiving" @click="waiving = !waiving">
          {{ say('leave.waive') }}
        </button>
      </p>
      <form v-if="waiving" class="no-print" @submit.prevent="waive">
        <v-text-field v-model="reason" :label="say('leave.reason')" maxlength="2000" />
        <button type="submit" class="act" :disabled="reason.trim() === ''">
          {{ say('leave.waive.go', { mode: leave.mode }) }}
        </button>
      </form>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin-top: 0;
}
section {
  margin: 8px 0 14px;
}
form {
  display: grid;
  gap: 6px;
  justify-items: start;
  max-width: 520px;
}
form .v-text-field {
  width: 100%;
}
</style>
