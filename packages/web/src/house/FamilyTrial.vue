<script lang="ts">
/** What a family would do, tried on devices made for it: starts, modes, parts and ways of hands; first what can never happen. */
</script>

<script setup lang="ts">
import type { FamilyShown } from '@plain-slate/api'
import type { Family } from '@plain-slate/core'
import { chordsOf, modeLines, neverLines, partLines, startLines } from '@plain-slate/texts'
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import Outline from '../pictures/Outline.vue'

const props = defineProps<{ family: Family; trial: FamilyShown['trial'] }>()
const say = useSay()

const starts = computed(() => startLines(say, props.family, props.trial))
const modes = computed(() => modeLines(say, props.family, props.trial))
const layouts = computed(() =>
  props.trial.parts.map(({ on, kinds, parts }) => ({
    on: say('trial.kinds', { first: on, more: kinds - 1 }),
    lines: partLines(say, props.family, parts),
  })),
)
const chords = computed(() => chordsOf(say, props.family))
const sum = computed(() =>
  say('trial.sum', {
    starts: starts.value.length,
    modes: modes.value.length,
    parts: new Set(props.trial.parts.flatMap(({ parts }) => parts.map((one) => one.partition)))
      .size,
    kinds: props.trial.parts.reduce((all, { kinds }) => all + kinds, 0),
    chords: chords.value.length,
  }),
)
const never = computed(() => neverLines(say, props.family, props.trial))
</script>

<template>
  <section aria-labelledby="trial" data-claim="family.trial">
    <h2 id="trial">
      {{ say('trial.title') }} <small>{{ say('trial.small') }}</small>
    </h2>
    <p class="sum" :class="{ amiss: trial.never > 0 }">
      {{ sum }} {{ say('trial.never', { n: trial.never }) }}
    </p>
    <ul v-if="never.length > 0">
      <li v-for="(one, at) in never" :key="at">
        <b>{{ one.what }}</b> – {{ one.says }}
      </li>
    </ul>
    <details>
      <summary>{{ say('trial.starts') }}</summary>
      <ol>
        <li v-for="(one, at) in starts" :key="at" :class="{ amiss: one.never }">
          {{ one.what }} <span class="dim small">{{ one.says }}</span>
        </li>
      </ol>
    </details>
    <details>
      <summary>{{ say('trial.modes') }}</summary>
      <ul>
        <li v-for="one in modes" :key="one.what" :class="{ amiss: one.never }">
          <b>{{ one.what }}</b> <span class="small">{{ one.says }}</span>
        </li>
      </ul>
    </details>
    <details>
      <summary>{{ say('trial.parts') }}</summary>
      <template v-for="layout in layouts" :key="layout.on">
        <h3>{{ layout.on }}</h3>
        <ul>
          <li v-for="one in layout.lines" :key="one.what" :class="{ amiss: one.never }">
            <b class="mono">{{ one.what }}</b> <span class="small">{{ one.says }}</span>
          </li>
        </ul>
      </template>
    </details>
    <details>
      <summary>{{ say('trial.chords') }}</summary>
      <div v-for="chord in chords" :key="chord.what + chord.say" class="chord">
        <figure v-if="chord.acts.length > 0">
          <Outline
            :outline="family.outline"
            :held="[]"
            :named="chord.keys"
            :cable="false"
            :label="say('way.outline', { keys: chord.names.join(', ') })"
          />
          <figcaption class="small">
            <span v-for="name in chord.names" :key="name">{{ name }}</span>
          </figcaption>
        </figure>
        <div>
          <b>{{ chord.what }}</b>
          <p>{{ chord.say }}</p>
          <ol v-if="chord.acts.length > 0">
            <li v-for="(act, at) in chord.acts" :key="at">{{ act }}</li>
          </ol>
          <p class="dim small">{{ chord.slip }}</p>
        </div>
      </div>
    </details>
  </section>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 4px 0;
}
p {
  margin: 0 0 6px;
  max-width: 86ch;
}
ol,
ul {
  padding-left: 22px;
  margin: 0 0 8px;
  max-width: 86ch;
}
.chord {
  display: flex;
  gap: 20px;
  align-items: flex-start;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
figure {
  flex: none;
  margin: 0;
}
figure :deep(svg) {
  width: 104px;
  height: auto;
}
figcaption span {
  display: block;
}
</style>
