<script lang="ts">
/** Open slips that were decided by another version of a family, and what of each plan this one changes. */
</script>

<script setup lang="ts">
import type { FamilyShown } from '@plain-slate/api'
import { changesWords } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'

defineProps<{ decided: FamilyShown['decided'] }>()
const say = useSay()
const words = ({ version, changes }: FamilyShown['decided'][number]) =>
  changes === null
    ? say('family.decided.holds', { version })
    : say('family.decided.moved', { version, changes: changesWords(say, changes) })
</script>

<template>
  <section v-if="decided.length > 0" class="amiss" data-claim="decided" aria-labelledby="decided">
    <h2 id="decided">
      {{ say('family.decided') }} <small>{{ say('family.decided.small') }}</small>
    </h2>
    <p v-for="one in decided" :key="one.number">
      <router-link :to="`/slips/${one.number}/plan`">{{ one.number }}</router-link>
      {{ words(one) }}
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin-top: 0;
}
p {
  margin: 0 0 6px;
}
</style>
