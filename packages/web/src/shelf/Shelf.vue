<script lang="ts">
/** The Shelf: every package with what is proven of it, every archive as it came. */
</script>

<script setup lang="ts">
import type { Archive, Shelf } from '@plain-slate/api'
import { leastOf, reaches } from '@plain-slate/core'
import { computed, ref } from 'vue'
import EmptyNote from '../parts/EmptyNote.vue'
import Resource from '../parts/Resource.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../said.ts'
import { useRead } from '../server/query.ts'
import { useShop } from '../time/shop.ts'
import { useShelving } from './shelving.ts'

const say = useSay()
const { when } = useShop()
const session = useSessionStore()
const shelving = useShelving()
const shelf = useRead('shelf')
const field = ref<HTMLInputElement>()
const may = computed(() => reaches(session.person?.role, leastOf('shelf.add')))
const MIB = 1024 ** 2
const mib = (bytes: number) => Math.max(1, Math.round(bytes / MIB))
const proven = ({ packages }: Shelf) => packages.filter(({ state }) => state === 'proven').length

function chosen() {
  shelving.shelve([...(field.value?.files ?? [])])
  if (field.value !== undefined) field.value.value = ''
}
function state(one: Archive): string {
  if (one.state === 'reading')
    return say('archive.state.reading', { done: mib(one.done), bytes: mib(one.bytes) })
  if (one.refusal === null) return say('archive.state.whole', { entries: one.entries })
  const { rule, entry, offset } = one.refusal
  return say('archive.state.refused', {
    why: say(`rule.${rule as 'truncated'}`),
    entry,
    offset,
  })
}
</script>

<template>
  <Resource v-slot="{ data }" :read="shelf">
    <h1>{{ say('shelf.title', { packages: data.packages.length, proven: proven(data) }) }}</h1>
    <p class="lede">{{ say('shelf.lede') }}</p>
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
    <EmptyNote
      v-if="data.packages.length === 0"
      :what="say('shelf.none')"
      :todo="say('shelf.none.do')"
    />
    <div v-else class="scroll-x">
      <table class="rows" aria-labelledby="packages">
        <thead>
          <tr>
            <th scope="col">{{ say('shelf.column.title') }}</th>
            <th scope="col">{{ say('shelf.column.for') }}</th>
            <th scope="col">{{ say('shelf.column.kind') }}</th>
            <th scope="col">{{ say('shelf.column.released') }}</th>
            <th scope="col">{{ say('shelf.column.size') }}</th>
            <th scope="col">{{ say('shelf.column.state') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in data.packages" :key="one.id" class="clickable">
            <td>
              <router-link class="mono" :to="`/shelf/${one.id}`">{{ one.title }}</router-link>
              <span v-if="one.title !== one.build" class="mono dim small sum">{{ one.build }}</span>
            </td>
            <td class="mono dim">{{ one.models.join(' ') }} {{ one.boards.join(' ') }}</td>
            <td class="dim">{{ one.kind }}</td>
            <td class="mono">{{ one.patchDate }}</td>
            <td class="mono">{{ say('archive.mib', { n: mib(one.bytes * one.scale) }) }}</td>
            <td :class="one.state">{{ say(`package.state.${one.state}`) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-if="data.archives.length > 0">
      <h2 id="archives">
        {{ say('shelf.archives') }} <small>{{ say('shelf.archives.small') }}</small>
      </h2>
      <div class="scroll-x">
        <table class="rows" aria-labelledby="archives">
          <thead>
            <tr>
              <th scope="col">{{ say('shelf.column.archive') }}</th>
              <th scope="col">{{ say('shelf.column.size') }}</th>
              <th scope="col">{{ say('shelf.column.holds') }}</th>
              <th scope="col">{{ say('shelf.column.by') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in data.archives" :key="one.id">
              <td>
                <span class="mono">{{ one.name }}</span>
                <span class="mono dim small sum" :title="one.sha256">{{
                  one.sha256.slice(0, 16)
                }}</span>
              </td>
              <td class="mono nowrap">{{ say('archive.mib', { n: mib(one.bytes) }) }}</td>
              <td :class="one.state">
                {{ state(one) }}
                <progress
                  v-if="one.state === 'reading'"
                  :max="one.bytes"
                  :value="one.done"
                  :aria-label="one.name"
                />
                <template v-if="one.refusedEntries > 0">{{
                  say('archive.entries.refused', { n: one.refusedEntries })
                }}</template>
                <template v-if="one.trouble">{{
                  say('archive.trouble', { why: one.trouble })
                }}</template>
                <span v-if="one.package" class="dim small sum">{{
                  say('archive.package', { id: one.package })
                }}</span>
              </td>
              <td class="nowrap dim">{{ when(one.at) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </Resource>
</template>

<style scoped>
.sum {
  display: block;
}
.nowrap {
  white-space: nowrap;
}
.refused,
.refuted {
  color: var(--brick);
}
.known,
.here {
  color: var(--ochre);
}
progress {
  display: block;
  width: 160px;
  accent-color: var(--sky);
}
</style>
