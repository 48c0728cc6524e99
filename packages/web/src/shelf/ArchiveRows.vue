<script lang="ts">
/**
 * Archives as they came, the newest first: how reading ended, what is odd about each, its entries a page at
 * a time; taken off the shelf, and put back.
 */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { Archive } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'
import { useShop } from '../time/shop.ts'
import EntryRows from './EntryRows.vue'
import { archiveWords, roundMib } from './archive-words.ts'

const props = defineProps<{ archives: readonly Archive[]; may: boolean }>()
const say = useSay()
const client = useQueryClient()
const { when } = useShop()
const remove = useChange('archiveRemove')
const restore = useChange('archiveRestore')
const again = useChange('archiveReadAgain')
const opened = ref<string>()
const error = computed(() => remove.error.value ?? restore.error.value ?? again.error.value)

/** What is said of it and refuses nothing by itself. */
const odd = ({
  state: is,
  refusedEntries,
  endMark,
  behind,
  trouble,
}: Archive): readonly string[] => [
  ...(refusedEntries > 0 ? [say('archive.entries.refused', { n: refusedEntries })] : []),
  ...(endMark ? [] : [say('archive.end-mark')]),
  ...(behind === null ? [] : [say(`archive.behind.${behind.what}`, { offset: behind.offset })]),
  ...(is === 'whole' && trouble !== null ? [say('archive.trouble', { why: trouble })] : []),
]
const holds = ({ package: id, trouble }: Archive) => {
  if (id !== null) return say('archive.package', { id })
  return trouble === null ? say('archive.no-manifest') : ''
}
async function act(change: typeof remove | typeof restore | typeof again, id: string) {
  await change.mutateAsync({ params: { id } }).catch(() => undefined)
  renew(client, 'shelf')
}
const toggle = (id: string) => (opened.value = opened.value === id ? undefined : id)
</script>

<template>
  <template v-if="props.archives.length > 0">
    <h2 id="archives">
      {{ say('shelf.archives') }} <small>{{ say('shelf.archives.small') }}</small>
    </h2>
    <Trouble v-if="error" :trouble="troubleOf(error)" quiet />
    <Columns
      by="archives"
      :columns="[
        say('shelf.column.archive'),
        say('shelf.column.size'),
        say('shelf.column.holds'),
        say('shelf.column.by'),
      ]"
    >
      <template v-for="one in archives" :key="one.id">
        <tr :data-archive="one.name" :class="{ gone: one.removedAt !== null }">
          <td>
            <span class="mono">{{ one.name }}</span>
            <span class="mono dim small sum" :title="one.sha256">{{
              one.sha256.slice(0, 16)
            }}</span>
          </td>
          <td class="mono nowrap">{{ say('archive.mib', { n: roundMib(one.bytes) }) }}</td>
          <td>
            <span :class="one.state">{{ archiveWords(say, one) }}</span>
            <progress
              v-if="one.state === 'reading'"
              :max="one.bytes"
              :value="one.done"
              :aria-label="one.name"
            />
            <span v-for="(what, at) in odd(one)" :key="at" class="odd sum">{{ what }}</span>
            <span v-if="one.state === 'whole'" class="dim small sum">{{ holds(one) }}</span>
            <span v-if="one.removedAt !== null" class="sum">{{ say('archive.removed') }}</span>
            <span class="row no-print acts">
              <button
                v-if="one.state === 'whole'"
                type="button"
                class="act"
                :aria-expanded="opened === one.id"
                :aria-label="say('archive.entries.of', { name: one.name })"
                @click="toggle(one.id)"
              >
                {{ say('archive.entries') }}
              </button>
              <template v-if="may">
                <button
                  v-if="one.state === 'failed'"
                  type="button"
                  class="act"
                  @click="act(again, one.id)"
                >
                  {{ say('archive.again') }}
                </button>
                <button
                  v-if="one.removedAt !== null"
                  type="button"
                  class="act"
                  @click="act(restore, one.id)"
                >
                  {{ say('archive.restore') }}
                </button>
                <button
                  v-else-if="one.state !== 'reading'"
                  type="button"
                  class="act"
                  :aria-label="say('archive.remove.of', { name: one.name })"
                  @click="act(remove, one.id)"
                >
                  {{ say('archive.remove') }}
                </button>
              </template>
            </span>
          </td>
          <td class="nowrap dim">{{ when(one.at) }}</td>
        </tr>
        <tr v-if="opened === one.id">
          <td colspan="4"><EntryRows :archive="one" /></td>
        </tr>
      </template>
    </Columns>
  </template>
</template>

<style scoped>
.sum {
  display: block;
}
.nowrap {
  white-space: nowrap;
}
.refused,
.failed {
  color: var(--brick);
}
.odd {
  color: var(--ochre);
}
.gone > td:not(:nth-child(3)) {
  text-decoration: line-through;
  color: var(--ink-2);
}
.acts {
  gap: 14px;
}
progress {
  display: block;
  width: 160px;
  accent-color: var(--sky);
}
</style>
