<script setup lang="ts">
/** In which mode a run waits for its device, and what answers at its port meanwhile. */
import type { RunShown } from '@plain-slate/api'
import { endOf } from '@plain-slate/texts'
import { computed } from 'vue'
import { useSay } from '../base/said.ts'

const { waiting, serial } = defineProps<{
  waiting: NonNullable<RunShown['waiting']>
  /** Of the device that the run is of. */
  serial: string
}>()
const say = useSay()
const isOther = computed(() => waiting.seen !== null && waiting.seen.serial !== serial)
</script>

<template>
  <p data-claim="waits">
    {{ waiting.mode ? say('run.waiting', { mode: waiting.mode.name }) : say('run.waiting.any') }}
    <strong v-if="waiting.seen && isOther">
      {{
        say('run.waiting.other', {
          model: waiting.seen.model,
          end: endOf(waiting.seen.serial),
          own: endOf(serial),
        })
      }}
    </strong>
    <template v-else-if="waiting.seen">
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
