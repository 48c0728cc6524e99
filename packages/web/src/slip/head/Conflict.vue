<script lang="ts">
/** One field that two people wrote: both versions side by side, and the choice. */
</script>

<script setup lang="ts">
import type { SlipField, Theirs } from '@plain-slate/api'
import { useSay } from '../../base/said.ts'
import { useShop } from '../../time/shop.ts'

const props = defineProps<{ theirs: Theirs; mine: string }>()
const emit = defineEmits<{ decide: [whose: 'theirs' | 'mine'] }>()
const say = useSay()
const { time, when } = useShop()

const shown = (value: string | null) => {
  if (value === null || value === '') return say('slip.conflict.nothing')
  return props.theirs.field === 'due' ? when(value) : value
}
</script>

<template>
  <section class="conflict" role="alert">
    <h2>
      {{ say('slip.conflict.title') }}
      <small>{{ say(`slip.short.${theirs.field as SlipField}`) }}</small>
    </h2>
    <div class="two">
      <div>
        <span class="dim small">
          {{ say('slip.conflict.theirs', { by: theirs.by, at: time(theirs.at) }) }}
        </span>
        <p>{{ shown(theirs.value) }}</p>
        <v-btn variant="outlined" @click="emit('decide', 'theirs')">
          {{ say('slip.conflict.take-theirs') }}
        </v-btn>
      </div>
      <div>
        <span class="dim small">{{ say('slip.conflict.mine') }}</span>
        <p>{{ shown(mine) }}</p>
        <v-btn variant="outlined" @click="emit('decide', 'mine')">
          {{ say('slip.conflict.take-mine') }}
        </v-btn>
      </div>
    </div>
  </section>
</template>

<style scoped>
.conflict {
  border-left: 4px solid var(--ochre);
  background: var(--raised);
  padding: 2px 14px 14px;
  margin-top: 12px;
}
h2 {
  margin-top: 10px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
}
p {
  margin: 2px 0 8px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
</style>
