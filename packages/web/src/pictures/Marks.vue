<script lang="ts">
/** Marks beside a verdict: the triangle of a risk with its seconds, the ratchet tooth of what stays, in words what a rule rests on weakly. */
</script>

<script setup lang="ts">
import type { FindingShown } from '@plain-slate/api'
import { useSay } from '../base/said.ts'

defineProps<{ marks: FindingShown['marks'] }>()
const say = useSay()
function words({ kind, seconds = 0, date = '', devices = 0 }: FindingShown['marks'][number]) {
  switch (kind) {
    case 'risky':
      return say('mark.risky', { seconds })
    case 'irreversible':
      return say('mark.irreversible')
    case 'old':
      return say('mark.old', { date })
    case 'thin':
      return say('mark.thin', { n: devices })
    case 'person':
      return say('mark.person')
  }
}
</script>

<template>
  <span v-for="mark in marks" :key="mark.kind" :class="['mark', mark.kind]">
    <svg v-if="mark.kind === 'risky'" width="13" height="12" viewBox="0 0 13 12" aria-hidden="true">
      <path d="M6.5 0L13 12H0Z" />
    </svg>
    <svg
      v-else-if="mark.kind === 'irreversible'"
      width="14"
      height="12"
      viewBox="0 0 14 12"
      aria-hidden="true"
    >
      <path d="M0 12V0L5 5V0L10 5V0L14 4V12Z" />
    </svg>
    {{ words(mark) }}
  </span>
</template>

<style scoped>
.mark {
  font-size: 12.5px;
  margin-right: 8px;
  white-space: nowrap;
}
.risky {
  color: var(--brick);
}
.risky path {
  fill: var(--brick);
}
.irreversible path {
  fill: var(--ink);
}
</style>
