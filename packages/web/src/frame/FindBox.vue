<script lang="ts">
/**
 * The one find box: slips, people and commands, open to more kinds. A combobox after the ARIA
 * authoring practices: arrows choose, Enter goes there, Escape leaves. Scans arrive here.
 */
</script>

<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import { useCommands } from './commands.ts'
import { findings } from './findings.ts'

const say = useSay()
const router = useRouter()
const commands = useCommands()
const input = ref<HTMLInputElement>()
const text = ref('')
const open = ref(false)
const at = ref(0)

const q = computed(() => text.value.trim())
const asked = refDebounced(q, 120)
const read = useRead('find', () => ({ query: { q: asked.value } }), {
  enabled: () => asked.value !== '',
  keep: true,
})
const found = computed(() =>
  q.value === '' ? [] : findings(read.data.value ?? [], commands.value, q.value),
)
const settled = computed(() => asked.value === q.value && !read.isFetching.value)
const chosen = computed(() => found.value[Math.min(at.value, found.value.length - 1)])
watch(q, () => (at.value = 0))
/** A scan goes to what it names, where that is one thing: nobody has to press Enter after it. */
const scanned = ref(false)
watch([settled, found], () => {
  if (!scanned.value || !settled.value) return
  scanned.value = false
  const hits = found.value.filter(({ kind }) => kind !== 'command')
  const exact = hits.find(({ kind, title }) => kind === 'slip' && title === q.value)
  const only = hits.length === 1 ? hits[0] : undefined
  go(exact ?? only)
})

function move(by: number) {
  const count = found.value.length
  if (count > 0) at.value = (at.value + by + count) % count
}
function go(one = chosen.value) {
  if (one === undefined || !settled.value) return
  leave()
  if (one.kind === 'command') one.act()
  else void router.push(one.to)
}
function leave() {
  open.value = false
  text.value = ''
  input.value?.blur()
}

defineExpose({
  focus: () => input.value?.focus(),
  /** Takes a scan: its text is what is looked for. */
  take: (scan: string) => {
    text.value = scan.trim()
    /* Out of a field it goes no further than here: what is typed there would be lost. */
    const field = document.activeElement?.matches('input, textarea, select') === true
    scanned.value = !field || document.activeElement === input.value
    input.value?.focus()
    open.value = true
  },
})
</script>

<template>
  <div class="find" role="search">
    <input
      ref="input"
      v-model="text"
      type="text"
      role="combobox"
      autocomplete="off"
      spellcheck="false"
      aria-autocomplete="list"
      aria-controls="find-results"
      :aria-expanded="open && q !== ''"
      :aria-activedescendant="open && chosen ? `find-${chosen.id}` : undefined"
      :aria-label="say('find.label')"
      :placeholder="say('find.placeholder')"
      @focus="open = true"
      @blur="open = false"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go()"
      @keydown.esc="leave"
    />
    <kbd v-if="text === ''" aria-hidden="true">/</kbd>
    <div v-show="open && q !== ''" class="results">
      <ul id="find-results" role="listbox" :aria-label="say('find.results')">
        <li
          v-for="one in found"
          :id="`find-${one.id}`"
          :key="one.id"
          role="option"
          :aria-selected="one === chosen"
          @mousedown.prevent
          @click="go(one)"
        >
          <span class="kind">{{ say(`find.kind.${one.kind}`) }}</span>
          <span
            ><b :class="{ mono: one.kind === 'slip' }">{{ one.title }}</b> {{ one.detail }}</span
          >
        </li>
      </ul>
      <p v-if="found.length === 0 && settled" role="status">{{ say('find.nothing', { q }) }}</p>
    </div>
  </div>
</template>

<style scoped>
.find {
  position: relative;
  margin-left: auto;
  width: 272px;
  min-width: 120px;
}
input {
  width: 100%;
  font: inherit;
  color: var(--ink);
  background: var(--field);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 4px 28px 4px 10px;
}
input::placeholder {
  color: var(--ink-2);
  opacity: 1;
}
kbd {
  position: absolute;
  right: 7px;
  top: 5px;
}
.results {
  position: absolute;
  z-index: 20;
  top: calc(100% + 4px);
  right: 0;
  width: 400px;
  max-width: 92vw;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 3px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 76px 1fr;
  padding: 7px 10px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--raised);
  box-shadow: inset 4px 0 0 var(--board);
}
.kind {
  color: var(--ink-2);
  font-size: 12.5px;
}
p {
  margin: 0;
  padding: 10px;
}
@media (max-width: 700px) {
  .find {
    order: 8;
    width: 100%;
  }
}
</style>
