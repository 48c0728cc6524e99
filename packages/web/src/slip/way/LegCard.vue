<script lang="ts">
/** One leg: its acts beside the outline, the ring of the act that has a time, what is to be seen at its end. */
</script>

<script setup lang="ts">
import type { LegShown } from '@plain-slate/api'
import type { Mode, Outline } from '@plain-slate/core'
import { handActWords, passedWords } from '@plain-slate/texts'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'
import OutlinePicture from '../../pictures/Outline.vue'
import Ring from '../../pictures/Ring.vue'
import { useCount } from './count.ts'
import { bandOf, heldAt } from './words.ts'

const props = defineProps<{
  leg: LegShown
  outline: Outline
  /** Tries that missed before this one. */
  missed: number
  permission: string
  may: boolean
}>()
const emit = defineEmits<{ shows: [mode: Mode] }>()
const say = useSay()
const { at, passed, next: count, reset, stop } = useCount()

const acts = computed(() => props.leg.acts)
const done = computed(() => at.value >= acts.value.length)
const current = computed(() => acts.value[at.value])
const band = computed(() => (current.value === undefined ? undefined : bandOf(current.value)))
const held = computed(() => heldAt(acts.value, at.value))
const named = computed(() => acts.value.flatMap(({ keys }) => keys.map(({ id }) => id)))
const names = computed(() =>
  props.outline.keys
    .map(({ id, name }, index) => ({ id, text: `${index + 1} ${name}` }))
    .filter(({ id }) => named.value.includes(id)),
)
function next() {
  if (done.value) return
  count()
  if (done.value) stop()
}
const label = (): string => {
  if (acts.value.length === 0 || done.value) return ''
  const following = acts.value[at.value + 1]
  if (at.value < 0) return say('way.begin')
  return say(following === undefined ? 'way.done' : 'way.next')
}
defineExpose({ next, begun: () => at.value >= 0 })

const timing = computed(() => {
  const [low, high] = band.value ?? [0, 0]
  if (passed.value < low) return say('way.ring.early', { low })
  return passed.value <= high ? say('way.ring.now') : say('way.ring.late', { high })
})
const menus = computed(() =>
  props.leg.menus.map(({ upToLoader, presses, lines }, _, all) => ({
    title:
      all.length === 1
        ? say('way.menu')
        : upToLoader === null
          ? say('way.menu.newer')
          : say('way.menu.older', { n: upToLoader }),
    presses,
    lines,
  })),
)
const arrivals = computed(() => [
  { mode: props.leg.to, looks: props.leg.looks, tell: '' },
  ...props.leg.alike,
])
const isTimed = computed(() => acts.value.some((act) => bandOf(act) !== undefined))
</script>

<template>
  <div class="leg">
    <figure v-if="acts.length > 0">
      <OutlinePicture
        :outline="outline"
        :held="held.keys"
        :named="named"
        :cable="held.cable"
        :label="say('way.outline', { keys: names.map(({ text }) => text).join(', ') })"
      />
      <figcaption class="small">
        <span v-for="one in names" :key="one.id">{{ one.text }}</span>
      </figcaption>
    </figure>
    <div class="what">
      <p v-if="missed > 0 && leg.slip" class="amiss" role="status" data-claim="way.slip">
        {{ say('way.missed', { n: missed, slip: leg.slip.say, leads: leg.slip.leads.name }) }}
        <template v-if="leg.slip.back && leg.slip.back.length > 0">{{
          say('way.back', { back: leg.slip.back.join(' ') })
        }}</template>
      </p>
      <p v-if="leg.say !== ''" class="say">{{ leg.say }}</p>
      <ol v-if="acts.length > 0" class="acts">
        <li
          v-for="(act, index) in acts"
          :key="index"
          :class="{ now: index === at, past: index < at }"
          :aria-current="index === at ? 'step' : undefined"
        >
          {{ handActWords(say, act) }}
        </li>
      </ol>
      <p v-if="leg.hurdle">{{ say('way.hurdle', { say: leg.hurdle }) }}</p>
      <div v-for="menu in menus" :key="menu.title" class="menu" data-claim="way.menu">
        <b>{{ menu.title }}</b>
        <ol>
          <li
            v-for="(line, index) in menu.lines"
            :key="line.name"
            :class="{ wanted: index === menu.presses, danger: line.danger }"
          >
            {{ line.name }}
            <small v-if="index === menu.presses">{{
              say('way.menu.presses', { n: menu.presses })
            }}</small>
            <small v-else-if="line.danger">{{ say('way.menu.danger') }}</small>
          </li>
        </ol>
      </div>
      <p v-if="leg.permitted" class="small">{{ say('way.permitted', { what: permission }) }}</p>
      <p v-if="leg.starts" class="small" data-claim="way.starts">
        {{ say(leg.raises ? 'way.starts.raises' : 'way.starts') }}
      </p>
      <p v-if="acts.length > 0" class="row no-print">
        <v-btn v-if="!done" :disabled="!may" @click="next">{{ label() }}<kbd>Enter</kbd></v-btn>
        <button v-if="at >= 0" type="button" class="act" @click="reset">
          {{ say('way.again') }}
        </button>
        <span v-if="at < 0 && isTimed" class="dim small">{{
          say('way.begin.hint', { time: passedWords(say, leg.seconds) })
        }}</span>
      </p>
      <div class="arrival">
        <b>{{ say(done || acts.length === 0 ? 'way.shows' : 'way.arrival') }}</b>
        <ul>
          <li v-for="one in arrivals" :key="one.mode.id">
            <button
              v-if="done || acts.length === 0"
              type="button"
              class="act"
              :disabled="!may"
              @click="emit('shows', one.mode.id)"
            >
              {{ say('way.is', { looks: one.looks, mode: one.mode.name }) }}
            </button>
            <span v-else>{{ say('way.is', { looks: one.looks, mode: one.mode.name }) }}</span>
            <span v-if="one.tell !== ''" class="dim small tell">{{ one.tell }}</span>
          </li>
          <li v-if="leg.slip && !arrivals.some((one) => one.mode.id === leg.slip?.leads.id)">
            <button
              v-if="done || acts.length === 0"
              type="button"
              class="act"
              :disabled="!may"
              @click="emit('shows', leg.slip.leads.id)"
            >
              {{ say('way.is.slip', { mode: leg.slip.leads.name, slip: leg.slip.say }) }}
            </button>
            <span v-else class="dim small">{{
              say('way.is.slip', { mode: leg.slip.leads.name, slip: leg.slip.say })
            }}</span>
          </li>
        </ul>
      </div>
    </div>
    <div v-if="current && band" class="count">
      <Ring :passed="passed" :band="band" :label="say('way.ring', { n: Math.round(passed) })" />
      <p class="small" role="status">{{ timing }}</p>
    </div>
  </div>
</template>

<style scoped>
.leg {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: flex-start;
}
figure {
  margin: 0;
}
figcaption {
  display: flex;
  flex-direction: column;
  color: var(--ink-2);
}
.what {
  flex: 1 1 320px;
  min-width: 0;
}
.what p {
  margin: 0 0 6px;
}
.say {
  font-size: 16.5px;
}
.acts {
  margin: 0 0 8px;
  padding-left: 22px;
}
.acts .now {
  font-weight: 650;
}
.acts .past {
  color: var(--ink-2);
}
.menu ol,
.arrival ul {
  margin: 2px 0 8px;
  padding-left: 22px;
}
.menu .wanted {
  font-weight: 650;
}
.menu .danger {
  color: var(--brick);
}
/* On a phone the ring stands where the eyes are: beside the outline. */
@media (max-width: 700px) {
  .count {
    order: 1;
  }
  .what {
    order: 2;
    flex-basis: 100%;
  }
}
.tell {
  display: block;
}
.count {
  flex: none;
  text-align: center;
}
.count p {
  margin: 4px 0 0;
}
</style>
