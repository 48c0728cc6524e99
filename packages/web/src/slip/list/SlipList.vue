<script lang="ts">
/** The list of slips: searched, filtered and sorted, all of it in the address. */
</script>

<script setup lang="ts">
import { INTENTS, STAGES } from '@plain-slate/core'
import { SLIPS_A_PAGE, SLIP_SORTS } from '@plain-slate/api'
import { useDebounceFn } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import EmptyNote from '../../parts/EmptyNote.vue'
import Resource from '../../parts/Resource.vue'
import { useSay } from '../../base/said.ts'
import { addressOf } from '../../server/call.ts'
import { useRead } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import TakeIn from './TakeIn.vue'
import type { ListQuery } from './query.ts'
import { changedTo, readListQuery, sortedBy, writeListQuery } from './query.ts'

const say = useSay()
const route = useRoute()
const router = useRouter()
const { when } = useShop()
const query = computed(() => readListQuery(route.query))
const asked = computed(() => ({
  query: writeListQuery(query.value) as Partial<ListQuery>,
}))
const slips = useRead('slips', () => asked.value as object, { keep: true })

const COLUMNS = [
  'number',
  'device',
  'customer',
  'intent',
  'promise',
  'stage',
  'state',
  'due',
] as const
const sortable = (column: string) => SLIP_SORTS.some((sort) => sort === column)

function change(part: Partial<ListQuery>) {
  void router.replace({ query: writeListQuery(changedTo(query.value, part)) })
}
const pageAt = (page: number) => ({
  query: writeListQuery({ ...query.value, page: page === 1 ? '' : String(page) }),
})
const search = useDebounceFn((q: string) => change({ q: q.trim() }), 200)

const options = (values: readonly string[], words: (value: string) => string) => [
  { value: '', title: say('slips.any') },
  ...values.map((value) => ({ value, title: words(value) })),
]
const intents = computed(() => options(INTENTS, (one) => say(`intent.${one as 'update'}`)))
const stages = computed(() => options(STAGES, (one) => say(`stage.${one as 'plan'}`)))

const ARROWS = { ascending: '↑', descending: '↓', none: '' } as const
const arrow = (column: string) => ARROWS[ariaSort(column) ?? 'none']

function ariaSort(column: string) {
  if (query.value.sort !== column) return undefined
  return query.value.dir === 'down' ? 'descending' : 'ascending'
}
</script>

<template>
  <h1>
    <template v-if="slips.data.value">
      {{
        slips.data.value.found === slips.data.value.total
          ? say('slips.title.all', { total: slips.data.value.total })
          : say('slips.title', {
              shown: slips.data.value.found,
              total: slips.data.value.total,
            })
      }}
    </template>
    <template v-else>{{ say('place.slips') }}</template>
  </h1>
  <p class="lede">{{ say('slips.lede') }}</p>
  <div class="tools no-print">
    <v-text-field
      :model-value="query.q"
      :label="say('slips.search')"
      :placeholder="say('slips.search.placeholder')"
      type="search"
      @update:model-value="search"
    />
    <v-select
      :model-value="query.intent"
      :items="intents"
      :label="say('slips.intent')"
      @update:model-value="(intent: string) => change({ intent })"
    />
    <v-select
      :model-value="query.stage"
      :items="stages"
      :label="say('slips.stage')"
      @update:model-value="(stage: string) => change({ stage })"
    />
    <v-btn to="/slips/new">{{ say('slips.new') }}<kbd>N</kbd></v-btn>
  </div>
  <Resource :read="slips" :empty="(data) => data.rows.length === 0">
    <template #empty>
      <EmptyNote
        v-if="slips.data.value?.total === 0 && query.q === ''"
        :what="say('slips.none')"
        :todo="say('slips.none.do')"
      />
      <EmptyNote v-else :what="say('slips.empty')" :todo="say('slips.empty.do')" />
    </template>
    <template #default="{ data }">
      <div class="scroll-x">
        <table class="rows" :aria-label="say('place.slips')">
          <thead>
            <tr>
              <th v-for="column in COLUMNS" :key="column" scope="col" :aria-sort="ariaSort(column)">
                <button
                  v-if="sortable(column)"
                  type="button"
                  class="sort"
                  :title="say('slips.sort', { column: say(`slips.column.${column}`) })"
                  @click="change(sortedBy(query, column))"
                >
                  {{ say(`slips.column.${column}`) }}
                  <span aria-hidden="true" class="arrow">{{ arrow(column) }}</span>
                </button>
                <template v-else>{{ say(`slips.column.${column}`) }}</template>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="slip in data.rows" :key="slip.number" class="clickable">
              <td>
                <router-link class="mono" :to="`/slips/${slip.number}`">{{
                  slip.number
                }}</router-link>
              </td>
              <td>
                <b>{{ slip.device }}</b>
              </td>
              <td class="dim">{{ slip.customer }}</td>
              <td>{{ say(`intent.${slip.intent}`) }}</td>
              <td class="dim">{{ slip.promise }}</td>
              <td>{{ say(`stage.${slip.stage}`) }}</td>
              <td :class="{ dim: slip.state === 'open' }">{{ say(`state.${slip.state}`) }}</td>
              <td class="nowrap">{{ slip.due === null ? '' : when(slip.due) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <nav v-if="data.pages > 1" class="pages no-print" :aria-label="say('slips.pages')">
        <router-link v-if="data.page > 1" :to="pageAt(data.page - 1)" rel="prev">{{
          say('slips.page.before')
        }}</router-link>
        <span role="status">{{
          say('slips.page', {
            from: (data.page - 1) * SLIPS_A_PAGE + 1,
            to: (data.page - 1) * SLIPS_A_PAGE + data.rows.length,
            found: data.found,
          })
        }}</span>
        <router-link v-if="data.page < data.pages" :to="pageAt(data.page + 1)" rel="next">{{
          say('slips.page.after')
        }}</router-link>
      </nav>
      <p class="no-print">
        <a :href="addressOf('slipsCsv', asked as object)" download>{{ say('slips.csv') }}</a>
      </p>
    </template>
  </Resource>
  <TakeIn />
</template>

<style scoped>
.tools {
  display: grid;
  grid-template-columns: minmax(160px, 1fr) 140px 140px auto;
  gap: 10px;
  align-items: center;
  margin-bottom: 10px;
}
.pages {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 10px 0;
}
.sort {
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.arrow {
  display: inline-block;
  width: 1em;
}
.nowrap {
  white-space: nowrap;
}
@media (max-width: 700px) {
  .tools {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
