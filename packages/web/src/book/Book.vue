<script lang="ts">
/** The Book: its entries, newest first, filtered in the address. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import EmptyNote from '../parts/EmptyNote.vue'
import Resource from '../parts/Resource.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import { useShop } from '../time/shop.ts'
import { useBookQuery } from './query.ts'
import { actorWords, useActWords } from './words.ts'

const say = useSay()
const route = useRoute()
const router = useRouter()
const { when } = useShop()
const actWords = useActWords()
const people = useRead('people')
const { query, input } = useBookQuery()
const book = useRead('book', () => input.value, { keep: true })

function change(part: Record<string, string>) {
  const next = { ...route.query, before: '', ...part }
  const given = Object.entries(next).filter(([, value]) => value !== '')
  void router.replace({ query: Object.fromEntries(given) })
}
const anyone = computed(() => [
  { value: '', title: say('book.any') },
  ...(people.data.value ?? []).map(({ id, name }) => ({ value: id, title: name })),
])
const acts = computed(() => [
  { value: '', title: say('book.any') },
  ...(book.data.value?.acts ?? []).map((act) => ({ value: act, title: act })),
])
const holds = computed(() => {
  const check = book.data.value?.check
  if (check === null || check === undefined) return 'other'
  return check.holds ? 'yes' : 'no'
})
const textsOf = (texts: Readonly<Record<string, string | null>>) =>
  Object.values(texts).map((text) => text ?? say('book.withdrawn'))
</script>

<template>
  <h1>
    {{
      book.data.value
        ? say('book.title', { n: book.data.value.head.seq, holds })
        : say('place.book')
    }}
  </h1>
  <p class="lede">{{ say('book.lede') }}</p>
  <div class="tools no-print">
    <v-select
      :model-value="query.act"
      :items="acts"
      :label="say('book.filter.act')"
      @update:model-value="(act: string) => change({ act })"
    />
    <v-select
      :model-value="query.by"
      :items="anyone"
      :label="say('book.filter.by')"
      @update:model-value="(by: string) => change({ by })"
    />
    <v-text-field
      :model-value="query.slip"
      :label="say('book.filter.slip')"
      inputmode="numeric"
      maxlength="6"
      @change="(event: Event) => change({ slip: (event.target as HTMLInputElement).value.trim() })"
    />
  </div>
  <Resource :read="book" :empty="(data) => data.entries.length === 0">
    <template #empty>
      <EmptyNote :what="say('book.empty')" :todo="say('book.empty.do')" />
    </template>
    <template #default="{ data }">
      <Columns
        :label="say('place.book')"
        :columns="[
          say('book.column.seq'),
          say('book.column.at'),
          say('book.column.by'),
          say('book.column.slip'),
          say('book.column.what'),
          say('book.column.hash'),
        ]"
      >
        <tr v-for="line in data.entries" :id="`entry-${line.seq}`" :key="line.seq">
          <td class="mono">{{ line.seq }}</td>
          <td class="nowrap">{{ when(line.at) }}</td>
          <td :class="{ dim: line.by === null }" class="nowrap">
            {{ actorWords(say, line) }}
          </td>
          <td>
            <router-link v-if="line.slip" class="mono" :to="`/slips/${line.slip}`">{{
              line.slip
            }}</router-link>
          </td>
          <td>
            {{ actWords(line) }}
            <span v-for="(text, at) in textsOf(line.texts)" :key="at" class="dim text">{{
              text
            }}</span>
          </td>
          <td class="mono dim" :title="line.hash">{{ line.hash.slice(0, 8) }}</td>
        </tr>
      </Columns>
      <p
        v-if="(data.entries.at(-1)?.seq ?? 1) > 1 && data.entries.length < data.total"
        class="no-print"
      >
        <button
          type="button"
          class="act"
          @click="change({ before: String(data.entries.at(-1)?.seq) })"
        >
          {{ say('book.older') }}
        </button>
      </p>
    </template>
  </Resource>
</template>

<style scoped>
.tools {
  display: grid;
  grid-template-columns: 1fr 1fr 110px;
  gap: 10px;
  margin-bottom: 10px;
  max-width: 640px;
}
.nowrap {
  white-space: nowrap;
}
.text {
  display: block;
  font-size: 13px;
  overflow-wrap: anywhere;
}
</style>
