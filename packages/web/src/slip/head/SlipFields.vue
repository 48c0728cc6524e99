<script lang="ts">
/** The fields of a head, for a new slip and for changing one. */
</script>

<script setup lang="ts">
import type { SlipField } from '@plain-slate/api'
import { INTENTS } from '@plain-slate/core'
import { computed } from 'vue'
import { vFocus } from '../../parts/focus.ts'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'
import { fieldOf, momentOfField } from '../../time/words.ts'
import type { HeadDraft } from './head.ts'

const draft = defineModel<HeadDraft>({ required: true })
defineProps<{
  /** What is wrong with a field, by its name. */
  problems: Readonly<Record<string, string>>
  focusFirst?: boolean
}>()
const say = useSay()
const { zone } = useShop()

const set = (field: SlipField, value: string | null) =>
  (draft.value = { ...draft.value, [field]: value ?? '' })
const intents = computed(() => INTENTS.map((value) => ({ value, title: say(`intent.${value}`) })))
const due = computed({
  get: () => (draft.value.due === '' ? '' : fieldOf(Date.parse(draft.value.due), zone.value)),
  set: (text: string) => {
    const at = momentOfField(text, zone.value)
    set('due', at === undefined ? '' : new Date(at).toISOString())
  },
})
const LINES = ['device', 'model', 'customer', 'promise'] as const
</script>

<template>
  <div class="form">
    <v-text-field
      v-for="field in LINES"
      :key="field"
      v-focus="focusFirst === true && field === 'device'"
      :model-value="draft[field]"
      :label="say(`slip.field.${field}`)"
      :error-messages="problems[field] ?? []"
      :required="field === 'device'"
      maxlength="120"
      @update:model-value="(value: string) => set(field, value)"
    />
    <v-select
      :model-value="draft.intent"
      :items="intents"
      :label="say('slip.field.intent')"
      :error-messages="problems['intent'] ?? []"
      @update:model-value="(value: string) => set('intent', value)"
    />
    <v-text-field
      v-model="due"
      :label="say('slip.field.due')"
      :error-messages="problems['due'] ?? []"
      type="datetime-local"
    />
    <v-textarea
      class="wide"
      :model-value="draft.words"
      :label="say('slip.field.words')"
      :error-messages="problems['words'] ?? []"
      maxlength="2000"
      @update:model-value="(value: string) => set('words', value)"
    />
  </div>
</template>
