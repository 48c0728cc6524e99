<script lang="ts">
/** A line at the counter when the copy of the shop failed or grew old; nothing while all is well or none is wished. */
</script>

<script setup lang="ts">
import CopyWords from '../parts/CopyWords.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const copies = useRead('copies', {}, { every: 60_000 })
</script>

<template>
  <div v-if="copies.data.value && copies.data.value.trouble !== 'none'" class="copy">
    <CopyWords :copies="copies.data.value" />
    <router-link to="/house#house-copies">{{ say('copies.look') }}</router-link>
  </div>
</template>

<style scoped>
.copy {
  border-left: 4px solid var(--brick);
  padding-left: 12px;
  margin: 8px 0;
}
.copy :deep(p) {
  margin: 0;
}
</style>
