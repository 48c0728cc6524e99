<script lang="ts">
/** The Shelf: every package with what is proven of it, every archive as it came. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { Shelf } from '@plain-slate/api'
import { SHELF_PAGE } from '@plain-slate/api'
import { PACKAGE_STATES, leastOf, reaches } from '@plain-slate/core'
import { useDebounceFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import EmptyNote from '../parts/EmptyNote.vue'
import Resource from '../parts/Resource.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import ArchiveRows from './ArchiveRows.vue'
import { useShelving } from './shelving.ts'

const say = useSay()
const session = useSessionStore()
const shelving = useShelving()
const route = useRoute()
const router = useRouter()
/** What is asked for stands in the address. */
const asked = computed(() => ({
  find: textIn('find'),
  state: PACKAGE_STATES.find((one) => one === textIn('state')),
  after: Math.max(0, Number.parseInt(textIn('after'), 10) || 0),
}))
const query = computed(() => {
  const { state, ...rest } = asked.value
  return { query: { ...rest, ...(state === undefined ? {} : { state }) } }
})
const shelf = useRead('shelf', () => query.value, { keep: true })
const field = ref<HTMLInputElement>()
const may = computed(() => reaches(session.person?.role, leastOf('shelf.add')))
/** Another package of the same id: the two are told apart by their digests. */
const isTwin = ({ packages }: Shelf, one: Shelf['packages'][number]) =>
  packages.some(({ id, key }) => id === one.id && key !== one.key)
const MIB = 1024 ** 2
const mib = (bytes: number) => Math.max(1, Math.round(bytes / MIB))
const all = ({ states }: Shelf) => PACKAGE_STATES.reduce((sum, one) => sum + states[one], 0)
/** How many the pages run through: of one state, or of all. */
const paged = (data: Shelf) =>
  asked.value.state === undefined ? all(data) : data.states[asked.value.state]
function title(data: Shelf): string {
  if (asked.value.find !== '') return say('shelf.found', { n: all(data) })
  const { published: proven, known } = data.states
  if (known === 0) return say('shelf.title', { packages: all(data), proven })
  return say('shelf.title.known', { packages: all(data), here: all(data) - known, proven })
}
const states = computed(() => [
  { value: '', title: say('shelf.state.all') },
  ...PACKAGE_STATES.map((value) => ({ value, title: say(`package.state.${value}`) })),
])

function textIn(key: string): string {
  const value = route.query[key]
  return typeof value === 'string' ? value : ''
}
/** A change of what is asked for begins on the first page. */
function ask(part: Readonly<Record<string, string | number>>): void {
  const next = Object.entries({ ...asked.value, after: 0, ...part })
  const told = next.filter(([, value]) => value !== '' && value !== 0 && value !== undefined)
  void router.replace({ query: Object.fromEntries(told) as Record<string, string> })
}
const find = useDebounceFn((words: string) => ask({ find: words.trim() }), 200)

function chosen() {
  shelving.shelve([...(field.value?.files ?? [])])
  if (field.value !== undefined) field.value.value = ''
}
</script>

<template>
  <Resource v-slot="{ data }" :read="shelf">
    <h1>{{ title(data) }}</h1>
    <p class="lede">{{ say('shelf.lede') }} {{ say('shelf.choose.catalogue') }}</p>
    <p v-for="one in data.catalogues" :key="one.from" class="dim">
      {{ say('shelf.catalogue', one) }}
    </p>
    <p v-if="may" class="no-print">
      <input
        ref="field"
        type="file"
        multiple
        class="visually-hidden"
        tabindex="-1"
        :aria-label="say('shelf.choose')"
        @change="chosen"
      />
      <v-btn @click="field?.click()">{{ say('shelf.choose') }}</v-btn>
    </p>
    <h2 id="packages">{{ say('shelf.packages') }}</h2>
    <div class="tools no-print">
      <v-text-field
        :model-value="asked.find"
        :label="say('shelf.find')"
        type="search"
        @update:model-value="find"
      />
      <v-select
        :model-value="asked.state ?? ''"
        :items="states"
        :label="say('shelf.state')"
        @update:model-value="(state: string) => ask({ state })"
      />
    </div>
    <EmptyNote
      v-if="data.packages.length === 0 && (asked.find !== '' || asked.state !== undefined)"
      :what="say('shelf.none.found')"
      :todo="say('shelf.none.found.do')"
    />
    <EmptyNote
      v-else-if="data.packages.length === 0"
      :what="say('shelf.none')"
      :todo="say('shelf.none.do')"
    />
    <Columns
      v-else
      by="packages"
      class="packages"
      :columns="[
        say('shelf.column.title'),
        say('shelf.column.for'),
        say('shelf.column.kind'),
        say('shelf.column.released'),
        say('shelf.column.size'),
        say('shelf.column.state'),
      ]"
    >
      <tr v-for="one in data.packages" :key="one.key" class="clickable">
        <td>
          <router-link class="mono" :to="`/shelf/${one.key}`">{{ one.title }}</router-link>
          <span v-if="one.title !== one.build" class="mono dim small sum">{{ one.build }}</span>
          <span v-if="isTwin(data, one)" class="mono ochre small sum">{{ one.key }}</span>
        </td>
        <td class="mono dim">{{ one.models.join(' ') }} {{ one.boards.join(' ') }}</td>
        <td class="dim">{{ one.kind }}</td>
        <td class="mono">{{ one.patchDate }}</td>
        <td class="mono">{{ say('archive.mib', { n: mib(one.bytes * one.scale) }) }}</td>
        <td :class="one.state">{{ say(`package.state.${one.state}`) }}</td>
      </tr>
    </Columns>
    <p v-if="paged(data) > SHELF_PAGE" class="row no-print">
      <v-btn
        variant="outlined"
        :disabled="asked.after === 0"
        @click="ask({ after: Math.max(0, asked.after - SHELF_PAGE) })"
        >{{ say('shelf.page.before') }}</v-btn
      >
      <span class="mono">{{
        say('shelf.page', {
          from: asked.after + 1,
          to: asked.after + data.packages.length,
          n: paged(data),
        })
      }}</span>
      <v-btn
        variant="outlined"
        :disabled="asked.after + SHELF_PAGE >= paged(data)"
        @click="ask({ after: asked.after + SHELF_PAGE })"
        >{{ say('shelf.page.after') }}</v-btn
      >
    </p>
    <ArchiveRows :archives="data.archives" :may="may" />
  </Resource>
</template>

<style scoped>
.tools {
  display: grid;
  grid-template-columns: minmax(200px, 1fr) 260px;
  gap: 12px;
  margin-bottom: 8px;
}
@media (max-width: 640px) {
  .tools {
    grid-template-columns: 1fr;
  }
  /* On a phone: what it is, for what, and its proof. */
  .packages :is(th, td):is(:nth-child(3), :nth-child(4), :nth-child(5)) {
    display: none;
  }
}
.sum {
  display: block;
}
.refuted {
  color: var(--brick);
}
.known,
.whole,
.ochre {
  color: var(--ochre);
}
</style>
