<script lang="ts">
/** The pace band: usual, slow, stuck; the needle now; where the step will end at the present rate. */
</script>

<script setup lang="ts">
import { bandOf } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { clockOf } from './wall.ts'

const props = defineProps<{
  range: { readonly low: number; readonly high: number }
  passed: number
  share: number | undefined
  /** Seconds in which nothing moved, and how many of them are too many; undefined: no number is. */
  quiet: number
  limit: number | undefined
  /** The house never acts on a silence. */
  waits?: boolean
}>()
const say = useSay()
const band = computed(() =>
  bandOf(props.range, props.passed, props.share, { quiet: props.quiet, limit: props.limit }),
)
const at = (seconds: number) => `${Math.min(100, (seconds / band.value.drawnTo) * 100)}%`
/** Room for a word that is laid with its middle at a place, at either end of the band. */
const WORD_PX = 34
const wordAt = (seconds: number) => `clamp(${WORD_PX}px, ${at(seconds)}, calc(100% - ${WORD_PX}px))`
const zone = (from: number, to: number) => ({
  left: at(from),
  width: `calc(${at(to)} - ${at(from)})`,
})
const now = computed(() => say('pace.now', { time: clockOf(band.value.now) }))
const ends = computed(() =>
  band.value.ends === undefined ? '' : say('pace.ends', { time: clockOf(band.value.ends) }),
)
/** Short silences are nothing to tell. */
const QUIET_LEAST = 5
const silent = computed(() =>
  props.quiet < QUIET_LEAST ? '' : say('pace.silent', { quiet: clockOf(props.quiet) }),
)
const limit = computed(() =>
  props.limit === undefined
    ? say('pace.silent.never')
    : say('pace.silent.limit', { limit: clockOf(props.limit) }),
)
const word = computed(() =>
  say(props.waits && band.value.word === 'stuck' ? 'pace.stuck.wait' : `pace.${band.value.word}`),
)
const says = computed(() =>
  [now.value, ends.value, silent.value, word.value].filter((one) => one !== '').join(', '),
)
</script>

<template>
  <div class="pace" role="img" :aria-label="says" :title="says" :data-pace="band.word">
    <div class="words">
      <b :style="{ left: wordAt(band.now) }">{{ now }}</b>
      <span
        v-if="band.ends !== undefined"
        class="end"
        :class="{ second: Math.abs(band.ends - band.now) / band.drawnTo < 0.22 }"
        :style="{ left: wordAt(band.ends) }"
        >{{ ends }}</span
      >
    </div>
    <div class="band">
      <i class="usual" :style="zone(band.low, band.high)" />
      <i class="slow" :style="zone(band.high, band.drawnTo)" />
      <i class="needle" :style="{ left: at(band.now) }" />
      <i v-if="band.ends !== undefined" class="ends" :style="{ left: at(band.ends) }" />
    </div>
    <div class="zones">
      <span :style="{ left: at(band.low) }">{{
        say('pace.usual', { from: clockOf(band.low), to: clockOf(band.high) })
      }}</span>
    </div>
    <p class="silence" :class="{ stuck: band.word === 'stuck' }">
      <b v-if="band.word === 'stuck'">{{ word }}.</b>
      {{ [silent, limit].filter((one) => one !== '').join('; ') }}
    </p>
  </div>
</template>

<style scoped>
.pace {
  margin: 4px 0 8px;
}
.words {
  position: relative;
  height: 38px;
  font-size: 13px;
}
.words > * {
  position: absolute;
  bottom: 2px;
  transform: translateX(-50%);
  white-space: nowrap;
}
.words b {
  transform: translateX(max(-50%, -40px));
}
.words .second {
  bottom: 19px;
}
.band {
  position: relative;
  height: 36px;
  background: var(--raised);
}
.band i {
  position: absolute;
  top: 0;
  bottom: 0;
}
.usual {
  background: color-mix(in srgb, var(--lichen) 24%, var(--sheet));
}
.slow {
  background: repeating-linear-gradient(
    135deg,
    color-mix(in srgb, var(--ochre) 34%, var(--sheet)) 0 6px,
    color-mix(in srgb, var(--ochre) 20%, var(--sheet)) 6px 12px
  );
}
.silence {
  margin: 0;
  font-size: 12.5px;
  color: var(--ink-2);
}
.silence.stuck {
  color: var(--brick);
}
.needle {
  border-left: 4px solid var(--ink);
  top: -6px !important;
  bottom: -6px !important;
}
.ends {
  border-left: 3px dashed var(--ink);
  top: -4px !important;
  bottom: -4px !important;
}
.zones {
  position: relative;
  height: 20px;
  font-size: 12.5px;
  margin-top: 5px;
}
.zones span {
  position: absolute;
  white-space: nowrap;
}
</style>
