<script lang="ts">
/** The Shelf: every package with what is proven of it, every archive as it came. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { Shelf } from '@plain-slate/api'
import { leastOf, reaches } from '@plain-slate/core'
import { computed, ref } from 'vue'
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
const shelf = useRead('shelf')
const field = ref<HTMLInputElement>()
const may = computed(() => reaches(session.person?.role, leastOf('shelf.add')))
/** Another package of the same id: the two are told apart by their digests. */
const isTwin = ({ packages }: Shelf, one: Shelf['packages'][number]) =>
  packages.some(({ id, key }) => id === one.id && key !== one.key)
const MIB = 1024 ** 2
const mib = (bytes: number) => Math.max(1, Math.round(bytes / MIB))
const proven = ({ packages }: Shelf) => packages.filter(({ state }) => state === 'published').length

function chosen() {
  shelving.shelve([...(field.value?.files ?? [])])
  if (field.value !== undefined) field.value.value = ''
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
    <Columns
      v-else
      by="packages"
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
    <ArchiveRows :archives="data.archives" :may="may" />
  </Resource>
</template>

<style scoped>
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
