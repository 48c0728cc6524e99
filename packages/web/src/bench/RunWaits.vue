<script setup lang="ts">
/** In which mode a run waits for its device, and what answers at its port meanwhile. */
import type { RunShown } from '@plain-slate/api'
import { endOf } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'

defineProps<{ waiting: NonNullable<RunShown['waiting']> }>()
const say = useSay()
</script>

<template>
  <p data-claim="waits">
    {{ waiting.mode ? say('run.waiting', { mode: waiting.mode.name }) : say('run.waiting.any') }}
    <template v-if="waiting.seen">
      {{
        say('run.waiting.seen', {
          model: waiting.seen.model,
          mode: waiting.seen.mode.name,
          end: endOf(waiting.seen.serial),
        })
      }}
    </template>
    <slot />
  </p>
</template>
