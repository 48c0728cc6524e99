<script lang="ts">
/** Claims that are made of a package, each beside what its bytes say. */
</script>

<script setup lang="ts">
import { useSay } from '../base/said.ts'
import type { Answer } from '../server/call.ts'

type Claim = Answer<'shelfPackage'>['claims'][number]
defineProps<{ claims: readonly Claim[]; label: string }>()
const say = useSay()
const words = ({ claim, file, partition }: Claim) =>
  claim === 'image'
    ? say('package.claim.image', { partition: partition ?? '' })
    : say(`package.claim.${claim}`, { file })
const heldOf = ({ claim, held }: Claim) =>
  claim === 'published' && held === 'missing' ? say('held.published.missing') : say(`held.${held}`)
</script>

<template>
  <ul :aria-label="label">
    <li v-for="(claim, at) in claims" :key="at">
      <b>{{ words(claim) }}</b> <span :class="claim.held">{{ heldOf(claim) }}</span>
      <span v-if="claim.source" class="dim">
        ·
        {{
          say('package.told', { source: say(`outside.${claim.source}`), where: claim.where ?? '' })
        }}
      </span>
      <span v-if="claim.found" class="mono small sum">{{
        say('package.found', { found: claim.found })
      }}</span>
      <span v-if="claim.wanted && claim.held !== 'holds'" class="mono small sum">{{
        say('package.wanted', { wanted: claim.wanted })
      }}</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.holds {
  color: var(--lichen);
}
.missing {
  color: var(--ochre);
}
.contradicted {
  color: var(--brick);
  font-weight: 600;
}
.sum {
  display: block;
  overflow-wrap: anywhere;
}
</style>
