<script lang="ts">
/** A head to read. */
</script>

<script setup lang="ts">
import type { Slip, SlipField } from '@plain-slate/api'
import { SLIP_FIELDS } from '@plain-slate/api'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'

const props = defineProps<{ slip: Slip }>()
const say = useSay()
const { when } = useShop()

function text(field: SlipField): string {
  const value = props.slip[field]
  if (field === 'intent') return say(`intent.${props.slip.intent}`)
  if (field === 'due' && value !== null) return when(value)
  if (value !== null && value !== '') return value
  const personal = field === 'customer' || field === 'words'
  return personal && props.slip.withdrawn ? say('slip.head.withdrawn') : say('slip.head.unknown')
}
</script>

<template>
  <h2>{{ say('slip.head') }}</h2>
  <dl>
    <template v-for="field in SLIP_FIELDS" :key="field">
      <dt>{{ say(`slip.short.${field}`) }}</dt>
      <dd :class="{ mono: field === 'model', dim: !slip[field] }">{{ text(field) }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 120px 1fr;
  margin: 0;
}
dt,
dd {
  margin: 0;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
dt {
  color: var(--ink-2);
}
</style>
