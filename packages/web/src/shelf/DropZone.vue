<script lang="ts">
/** Firmware files dropped anywhere onto the page, and the list of those on their way. */
</script>

<script setup lang="ts">
import { leastOf, reaches } from '@plain-slate/core'
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import { archiveWords } from './archive-words.ts'
import type { Sending } from './shelving.ts'
import { useShelving } from './shelving.ts'

const say = useSay()
const shelving = useShelving()
const session = useSessionStore()
const over = ref(false)
const MIB = 1024 ** 2
const mib = (bytes: number) => Math.ceil(bytes / MIB)

const here = computed(() => shelving.list.some(({ state }) => state === 'arrived'))
const shelf = useRead('shelf', {}, { enabled: here })
/** What became of a file that is here, as far as the shelf knows. */
const read = ({ archive: id, packages }: Sending) => {
  if (packages !== undefined) return say('shelf.catalogue.taken', { packages })
  const archive = shelf.data.value?.archives.find((one) => one.id === id)
  return archive === undefined ? say('drop.sent') : archiveWords(say, archive)
}

const may = () => reaches(session.person?.role, leastOf('shelf.add'))
const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true

useEventListener(document, 'dragover', (event) => {
  if (!holdsFiles(event)) return
  event.preventDefault()
  over.value = may()
})
useEventListener(document, 'dragleave', (event) => {
  if (event.relatedTarget === null) over.value = false
})
useEventListener(document, 'drop', (event) => {
  if (!holdsFiles(event)) return
  event.preventDefault()
  over.value = false
  if (may()) shelving.shelve([...(event.dataTransfer?.files ?? [])])
})
</script>

<template>
  <div v-if="over" class="over" aria-hidden="true">{{ say('drop.here') }}</div>
  <section v-if="shelving.list.length > 0" class="list" :aria-label="say('drop.title')">
    <div class="row">
      <b>{{ say('drop.title') }}</b>
      <button type="button" class="act" @click="shelving.clear">{{ say('drop.clear') }}</button>
    </div>
    <div v-for="one in shelving.list" :key="one.key">
      <span class="mono">{{ one.name }}</span>
      <template v-if="one.state === 'arrived'">: {{ read(one) }}</template>
      <template v-else-if="one.state !== 'refused'">
        :
        {{ say('archive.state.sending', { done: mib(one.sent), bytes: mib(one.bytes) }) }}
        <progress :max="one.bytes" :value="one.sent" :aria-label="one.name" />
      </template>
      <Trouble v-if="one.trouble" :trouble="one.trouble" quiet />
    </div>
  </section>
</template>

<style scoped>
.over {
  position: fixed;
  inset: 44px 0 92px;
  z-index: 9;
  display: grid;
  place-items: center;
  font-size: 25px;
  font-weight: 650;
  color: var(--ink);
  background: var(--raised);
  border: 4px dashed var(--wood);
  opacity: 0.94;
}
.list {
  position: fixed;
  right: 16px;
  bottom: 104px;
  z-index: 8;
  width: min(440px, calc(100vw - 32px));
  max-height: 40vh;
  overflow: auto;
  padding: 10px 14px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.row {
  justify-content: space-between;
}
progress {
  width: 100%;
  accent-color: var(--sky);
}
@media print {
  .list {
    display: none;
  }
}
</style>
