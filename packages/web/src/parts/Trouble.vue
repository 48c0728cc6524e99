<script lang="ts">
/** A refusal as the house tells it: what happened, what was kept, what to try, and where. */
</script>

<script setup lang="ts">
import { useSay } from '../base/said.ts'
import type { Trouble } from '../server/call.ts'

defineProps<{ trouble: Trouble; quiet?: boolean }>()
const emit = defineEmits<{ again: [] }>()
const say = useSay()
</script>

<template>
  <div class="trouble" role="alert">
    <b>{{ trouble.sentence }}</b>
    <ul v-if="trouble.where && trouble.where.length > 0">
      <li v-for="one in trouble.where" :key="one.path">
        <span class="mono">{{ one.path }}</span> {{ one.problem }}
      </li>
    </ul>
    <p>{{ trouble.kept }} {{ trouble.remedy }}</p>
    <p v-if="!quiet" class="row">
      <button type="button" class="act" @click="emit('again')">{{ say('state.retry') }}</button>
      <span v-if="trouble.requestId" class="mono dim small">
        {{ say('state.request', { id: trouble.requestId.slice(0, 8) }) }}
      </span>
    </p>
  </div>
</template>

<style scoped>
.trouble {
  border-left: 4px solid var(--brick);
  padding: 8px 12px;
  background: var(--raised);
  margin: 8px 0;
}
p,
ul {
  margin: 3px 0 0;
}
ul {
  padding-left: 18px;
}
</style>
