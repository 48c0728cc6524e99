<script lang="ts">
/** A file that is chosen from the computer and stays named; choosing the same again tells it again. */
</script>

<script setup lang="ts">
import { ref } from 'vue'

defineProps<{ label: string; accept: string }>()
const emit = defineEmits<{ chosen: [file: File] }>()
const field = ref<HTMLInputElement>()
function read() {
  const [file] = field.value?.files ?? []
  if (file !== undefined) emit('chosen', file)
}
/** Before another is chosen, since the same one would be no change; what was chosen stays named until then. */
function forget() {
  if (field.value) field.value.value = ''
}
</script>

<template>
  <label>
    {{ label }}
    <input ref="field" type="file" :accept="accept" @click="forget" @change="read" />
  </label>
</template>

<style scoped>
label {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}
input::file-selector-button {
  font: inherit;
  color: var(--ink);
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 3px 10px;
  margin-right: 10px;
  cursor: pointer;
}
</style>
