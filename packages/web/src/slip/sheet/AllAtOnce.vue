<script lang="ts">
/**
 * Several answers with one press, each named on the button; none where one was answered otherwise. Pressed again by key when all of them stand,
 * it says nothing twice: Enter goes on.
 */
</script>

<script setup lang="ts">
import { computed } from 'vue'
import { useShortcutStore } from '../../keys/shortcuts.ts'
import { useJob } from '../job.ts'

const props = defineProps<{
  label: string
  lines: readonly { readonly topic: string; readonly answer: string }[]
}>()
const { line, tell, may } = useJob()
const shortcuts = useShortcutStore()
/** One that was answered otherwise is not run over. */
const against = computed(() =>
  props.lines.some(({ topic, answer }) => ![undefined, answer].includes(line(topic)?.answer)),
)
const standing = computed(() =>
  props.lines.every(({ topic, answer }) => line(topic)?.answer === answer),
)
function press() {
  if (standing.value) shortcuts.mainAction?.()
  else void tell([...props.lines])
}
</script>

<template>
  <p v-if="may && lines.length > 0 && !against" class="no-print">
    <button type="button" class="act" :aria-disabled="standing" @click="press">{{ label }}</button>
  </p>
</template>

<style scoped>
p {
  margin: 6px 0 0;
}
</style>
