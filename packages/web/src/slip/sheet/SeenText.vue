<script lang="ts">
/** What a screen or a label says, kept word for word under a name: evidence beside the readings that came of it. */
</script>

<script setup lang="ts">
import type { LineShown } from '@plain-slate/api'
import { SOURCES } from '@plain-slate/core'
import { computed, ref } from 'vue'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'
import { useLineWords } from '../../parts/line-words.ts'
import { useJob } from '../job.ts'

defineProps<{ seen: readonly LineShown[] }>()
const say = useSay()
const words = useLineWords()
const { when } = useShop()
const { may, tell } = useJob()
const text = ref('')
const where = ref<(typeof SOURCES)[number]>('screen')
const places = computed(() =>
  SOURCES.filter((one) => one !== 'link').map((one) => ({ value: one, title: words.answer(one) })),
)
async function keep() {
  const note = text.value.trim()
  if (note === '') return
  await tell([{ topic: 'seen.text', answer: where.value, note }])
  text.value = ''
}
</script>

<template>
  <section v-if="may || seen.length > 0" aria-labelledby="seen" data-claim="seen">
    <h2 id="seen">
      {{ say('seen.title') }} <small>{{ say('seen.small') }}</small>
    </h2>
    <blockquote v-for="(one, index) in seen" :key="index">
      <p class="mono text">{{ one.note ?? say('seen.withdrawn') }}</p>
      <p class="dim small">
        {{ words.answer(one.answer) }},
        {{ say('job.by', { by: one.by ?? say('slip.by.shell'), when: when(one.at) }) }}
      </p>
    </blockquote>
    <form v-if="may" class="no-print" @submit.prevent="keep">
      <v-textarea v-model="text" rows="2" auto-grow :label="say('seen.text')" maxlength="2000" />
      <v-select v-model="where" :items="places" :label="say('seen.where')" />
      <v-btn type="submit" variant="outlined" :disabled="text.trim() === ''">{{
        say('seen.put')
      }}</v-btn>
    </form>
  </section>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 210px auto;
  gap: 10px;
  align-items: start;
}
blockquote {
  margin: 0 0 8px;
  padding: 2px 0 2px 12px;
  border-left: 4px solid var(--line);
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  margin: 0;
}
blockquote .small {
  margin: 0;
}
@media (max-width: 700px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>
