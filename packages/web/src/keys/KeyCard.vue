<script lang="ts">
/** The card with every key that does something here, made from the table that the keys act by. */
</script>

<script setup lang="ts">
import type { PlainCode } from '@plain-slate/texts'
import { computed } from 'vue'
import { useBrowserStore } from '../base/browser.ts'
import { useSay } from '../base/said.ts'
import { useShortcutStore } from './shortcuts.ts'
import type { Group } from './shortcuts.ts'

const open = defineModel<boolean>({ required: true })
const say = useSay()
const browser = useBrowserStore()
const store = useShortcutStore()

const GROUPS: readonly (readonly [Group, PlainCode])[] = [
  ['places', 'keys.group.places'],
  ['slip', 'keys.group.slip'],
  ['everywhere', 'keys.group.everywhere'],
]
const groups = computed(() =>
  GROUPS.map(([group, title]) => ({
    title: say(title),
    keys: [...store.table.values()]
      .filter((one) => one.group === group && one.unlisted !== true)
      .map((one) => ({ key: one.shown ?? one.key, label: say(one.label) })),
  })).filter(({ keys }) => keys.length > 0),
)
</script>

<template>
  <v-dialog v-model="open" :aria-label="say('keys.title')">
    <div class="card">
      <h1>{{ say('keys.title') }}</h1>
      <p class="lede">{{ browser.shortcuts ? say('keys.lede') : say('keys.off') }}</p>
      <section v-for="group in groups" :key="group.title">
        <h2>{{ group.title }}</h2>
        <dl>
          <template v-for="one in group.keys" :key="one.key">
            <dt>
              <kbd>{{ one.key }}</kbd>
            </dt>
            <dd>{{ one.label }}</dd>
          </template>
        </dl>
      </section>
      <section>
        <dl>
          <dt><kbd>Enter</kbd></dt>
          <dd>{{ say('keys.main') }}</dd>
          <dt><kbd>Space</kbd></dt>
          <dd>{{ say('keys.hold') }}</dd>
        </dl>
        <p class="dim">{{ say('keys.scan') }}</p>
      </section>
      <v-btn autofocus @click="open = false">{{ say('keys.close') }}</v-btn>
    </div>
  </v-dialog>
</template>

<style scoped>
.card {
  background: var(--sheet);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 18px 24px 22px;
  overflow: auto;
}
dl {
  display: grid;
  grid-template-columns: 64px 1fr 64px 1fr;
  gap: 6px 8px;
  margin: 0;
}
dd {
  margin: 0;
}
.v-btn {
  margin-top: 14px;
}
@media (max-width: 700px) {
  dl {
    grid-template-columns: 64px 1fr;
  }
}
</style>
