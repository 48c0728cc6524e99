<script lang="ts">
/**
 * One thing that is asked, its answers as buttons; the one that stands is pressed, with who said it. An
 * address that ends in its name leads to it: whoever follows it stands at its first answer.
 */
/** The end of an address that leads to a topic's question. */
export const askedAt = (topic: string) => `#ask-${topic}`
</script>

<script setup lang="ts">
import type { LineShown } from '@plain-slate/api'
import { onMounted, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useShortcutStore } from '../../keys/shortcuts.ts'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'
import { useLineWords } from '../../parts/line-words.ts'

const props = defineProps<{
  topic: string
  name: string
  answers: readonly string[]
  line: LineShown | undefined
  needed?: boolean
  /** What is to be known of it before it is answered. */
  under?: string
  may: boolean
}>()
const emit = defineEmits<{ tell: [answer: string] }>()
const say = useSay()
const { when } = useShop()
const words = useLineWords()
const shortcuts = useShortcutStore()
const route = useRoute()
const row = useTemplateRef<HTMLElement>('row')

function stand() {
  if (route.hash !== askedAt(props.topic)) return
  const first = row.value?.querySelector<HTMLElement>('button:enabled') ?? row.value
  first?.focus()
}
onMounted(stand)
watch(() => route.hash, stand)

/** The answer that stands, pressed again by key: nothing is said twice, Enter goes on. */
function press(answer: string, { detail }: MouseEvent) {
  const byKey = detail === 0
  if (byKey && props.line?.answer === answer) shortcuts.mainAction?.()
  else emit('tell', answer)
}
</script>

<template>
  <div
    ref="row"
    class="ask"
    :class="{ open: needed && line === undefined }"
    :data-topic="topic"
    tabindex="-1"
  >
    <span :id="`ask-${topic}`" class="name">{{ name }}</span>
    <span class="answers" role="group" :aria-labelledby="`ask-${topic}`">
      <button
        v-for="answer in answers"
        :key="answer"
        type="button"
        class="answer"
        :aria-pressed="line?.answer === answer"
        :disabled="!may"
        @click="(event) => press(answer, event)"
      >
        {{ words.answer(answer) }}
      </button>
    </span>
    <span class="who dim small">
      {{ line ? say('job.by', { by: line.by ?? say('slip.by.shell'), when: when(line.at) }) : '' }}
    </span>
    <p v-if="under" class="under dim small">{{ under }}</p>
    <p v-if="line?.note" class="note">{{ line.note }}</p>
  </div>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: minmax(140px, 190px) 1fr auto;
  gap: 2px 12px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
  padding: 5px 0 5px 10px;
  border-left: 4px solid transparent;
}
.open {
  border-left-color: var(--ochre);
}
.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.answer {
  font: inherit;
  font-size: 14px;
  color: var(--ink);
  background: var(--field);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 2px 9px;
  cursor: pointer;
}
.answer[aria-pressed='true'] {
  background: var(--board);
  color: var(--chalk);
  border-color: var(--board);
  font-weight: 600;
}
.answer:disabled {
  cursor: default;
}
.under {
  grid-column: 2 / -1;
  margin: 0;
}
.note {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 14px;
  white-space: pre-line;
}
@media (max-width: 700px) {
  .ask {
    grid-template-columns: 1fr;
  }
  .under {
    grid-column: 1;
  }
}
@media print {
  .answer[aria-pressed='false'] {
    display: none;
  }
}
</style>
