<script lang="ts">
/**
 * What is shown of something read from the server: fetching, refused or away, empty, or the thing.
 * Made once so that these states look and read alike everywhere. While new data come in, the old stay.
 */
</script>

<script setup lang="ts" generic="Data">
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { online } from '../server/online.ts'
import type { Read } from '../server/query.ts'
import Trouble from './Trouble.vue'

const props = defineProps<{
  read: Read<Data>
  /** True when the data hold nothing to show; the `empty` slot then says what to do first. */
  empty?: (data: Data) => boolean
}>()
defineSlots<{
  default: (scope: { data: Data }) => unknown
  empty: () => unknown
}>()

const say = useSay()
const data = computed(() => props.read.data.value)
const trouble = computed(() => {
  const error = props.read.error.value
  return error === null ? undefined : troubleOf(error)
})
/** The frame tells of an outage, once for the whole page. */
const isTold = computed(() => trouble.value?.code === 'offline' && !online.value)
</script>

<template>
  <Trouble v-if="trouble && !isTold" :trouble="trouble" @again="read.refetch()" />
  <template v-if="data !== undefined">
    <slot v-if="empty?.(data) === true" name="empty" />
    <slot v-else :data="data" />
  </template>
  <p v-else-if="isTold" class="dim">{{ say('state.waits') }}</p>
  <p v-else-if="read.isPending.value" class="loading" role="status">{{ say('state.loading') }}</p>
</template>

<style scoped>
.loading {
  color: var(--ink-2);
  animation: appear 0.2s 0.3s both;
}
@keyframes appear {
  from {
    opacity: 0;
  }
}
</style>
