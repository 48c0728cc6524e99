<script lang="ts">
/** The frame around every page: top, spine, sheet, margin, ledge. */
</script>

<script setup lang="ts">
import { computed, onScopeDispose, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useBrowserStore } from '../base/browser.ts'
import KeyCard from '../keys/KeyCard.vue'
import { listenToKeys } from '../keys/keyboard.ts'
import { useShortcutStore, useShortcuts } from '../keys/shortcuts.ts'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import DropZone from '../shelf/DropZone.vue'
import Ledge from './Ledge.vue'
import TopBar from './TopBar.vue'
import { PLACES } from './places.ts'

const say = useSay()
const route = useRoute()
const router = useRouter()
const session = useSessionStore()
const browser = useBrowserStore()
const shortcuts = useShortcutStore()
const top = ref<InstanceType<typeof TopBar>>()
const card = ref(false)

useShortcuts([
  ...PLACES.map(({ key, label, path }) => ({
    key,
    shown: key.toUpperCase(),
    label,
    group: 'places' as const,
    act: () => void router.push(path),
  })),
  {
    key: 'n',
    shown: 'N',
    label: 'keys.new',
    group: 'everywhere',
    act: () => void router.push('/slips/new'),
  },
  { key: '/', label: 'keys.find', group: 'everywhere', act: () => top.value?.find() },
  { key: '?', label: 'keys.card', group: 'everywhere', act: () => (card.value = true) },
])

const ending = new AbortController()
onScopeDispose(() => ending.abort())
listenToKeys(
  {
    shortcut: (key) => (card.value ? undefined : shortcuts.table.get(key)?.act),
    mainAction: () => (card.value ? undefined : shortcuts.mainAction),
    scanned: (text) => {
      card.value = false
      top.value?.scanned(text)
    },
    enabled: () => browser.shortcuts,
  },
  ending.signal,
)

const parts = computed(() => route.matched.at(-1)?.components ?? {})

watch(
  () => route.fullPath,
  () => {
    const place = route.meta.place
    const known = PLACES.find(({ name }) => name === place)
    const name = known === undefined ? say('place.house') : say(known.label)
    const number = route.params['number']
    const what = typeof number === 'string' ? `${number} · ${name}` : name
    document.title = say('frame.title', { place: what })
  },
  { immediate: true },
)
</script>

<template>
  <div class="frame">
    <a href="#sheet" class="skip">{{ say('frame.skip') }}</a>
    <TopBar ref="top" @keys="card = true" />
    <p v-if="!session.online" class="offline" role="status">{{ say('state.offline') }}</p>
    <div class="body" :class="{ wide: !('margin' in parts) }">
      <nav v-if="'spine' in parts" class="spine" :aria-label="say('slip.stages')">
        <router-view name="spine" />
      </nav>
      <div v-else class="spine" />
      <main id="sheet" class="sheet" tabindex="-1">
        <router-view />
      </main>
      <aside v-if="'margin' in parts" class="margin" tabindex="0" :aria-label="say('frame.margin')">
        <router-view name="margin" />
      </aside>
    </div>
    <DropZone />
    <Ledge />
    <KeyCard v-model="card" />
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template: 44px auto minmax(0, 1fr) 92px / minmax(0, 1fr);
  grid-template-areas: 'top' 'word' 'body' 'ledge';
  height: 100vh;
  height: 100dvh;
  background: var(--desk);
}
.skip {
  position: absolute;
  left: 8px;
  top: -60px;
  z-index: 10;
  padding: 6px 12px;
  background: var(--sheet);
}
.skip:focus {
  top: 6px;
}
.offline {
  grid-area: word;
  margin: 0;
  padding: 6px 16px;
  background: var(--ochre);
  color: var(--sheet);
  font-weight: 600;
}
.body {
  grid-area: body;
  display: grid;
  grid-template-columns: 212px minmax(0, 1fr) 292px;
  min-height: 0;
}
.body.wide {
  grid-template-columns: 212px minmax(0, 1fr);
}
.spine {
  padding: 14px 0 10px 14px;
  overflow: auto;
}
.sheet {
  background: var(--sheet);
  border: solid var(--rule);
  border-width: 0 1px;
  padding: 16px 24px 24px;
  overflow: auto;
  outline: none;
}
.margin {
  padding: 16px;
  overflow: auto;
  font-size: 13.5px;
}
@media (max-width: 1179px) {
  .body {
    grid-template-columns: 212px minmax(0, 1fr);
    grid-template-rows: auto auto;
    overflow: auto;
  }
  .spine {
    grid-row: 1 / 3;
  }
  .sheet,
  .margin {
    overflow: visible;
  }
  .margin {
    grid-column: 2;
    border-top: 1px solid var(--rule);
    background: var(--desk);
  }
}
@media (max-width: 700px) {
  .frame {
    display: flex;
    flex-direction: column;
    height: auto;
    min-height: 100dvh;
  }
  .body {
    display: flex;
    flex-direction: column;
    overflow: visible;
    flex: 1;
  }
  .spine {
    padding: 10px 14px;
    overflow: visible;
  }
  .spine:empty {
    display: none;
  }
  .sheet {
    padding: 14px;
    border-width: 1px 0;
  }
}
@media print {
  .frame,
  .body {
    display: block;
    height: auto;
  }
  .spine,
  .skip {
    display: none;
  }
  .sheet {
    border: 0;
  }
}
</style>
