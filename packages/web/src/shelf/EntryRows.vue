<script lang="ts">
/** Entries of an archive, a page at a time, in their order; refused ones alone when asked. */
</script>

<script setup lang="ts">
import type { Archive, EntryShown } from '@plain-slate/api'
import { isCode, sayAny } from '@plain-slate/texts'
import { ref, watch } from 'vue'
import { useBrowserStore } from '../base/browser.ts'
import Resource from '../parts/Resource.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const props = defineProps<{ archive: Archive }>()
const say = useSay()
const browser = useBrowserStore()
const only = ref<'all' | 'refused'>(props.archive.refusedEntries > 0 ? 'refused' : 'all')
const after = ref(-1)
const before = ref<readonly EntryShown[]>([])
const page = useRead('archiveEntries', () => ({
  params: { id: props.archive.id },
  query: { after: after.value, only: only.value },
}))
watch(only, () => {
  after.value = -1
  before.value = []
})
function more() {
  const entries = page.data.value?.entries ?? []
  before.value = [...before.value, ...entries]
  after.value = entries.at(-1)?.n ?? -1
}
const why = (refused: string) => {
  const code = `entry.${refused}`
  return isCode(code) ? sayAny(browser.language, code, {}) : refused
}
</script>

<template>
  <label v-if="archive.refusedEntries > 0" class="no-print">
    <input v-model="only" type="checkbox" true-value="refused" false-value="all" />
    {{ say('archive.entries.only') }}
  </label>
  <Resource v-slot="{ data }" :read="page">
    <p v-if="data.entries.length + before.length === 0" class="dim">
      {{ say('archive.entries.none') }}
    </p>
    <ul v-else :aria-label="say('archive.entries.of', { name: archive.name })">
      <li
        v-for="one in [...before, ...data.entries]"
        :key="one.n"
        :class="{ refused: one.refused }"
      >
        <span class="mono name">{{ one.name }}</span>
        <span class="mono dim">{{ say('archive.entries.at', { offset: one.offset }) }}</span>
        <span v-if="one.refused">{{ why(one.refused) }}</span>
        <span v-else class="mono dim">{{ one.sha256.slice(0, 16) }}</span>
      </li>
    </ul>
    <button v-if="data.more" type="button" class="act no-print" @click="more">
      {{ say('archive.entries.more') }}
    </button>
  </Resource>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
  max-height: 360px;
  overflow: auto;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  padding: 2px 0;
  font-size: 13.5px;
}
.name {
  overflow-wrap: anywhere;
}
.refused {
  color: var(--brick);
}
</style>
