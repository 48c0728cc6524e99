<script lang="ts">
/**
 * The strip: a plan in time. Its top edge says what a cut there would leave; under it lanes for hands, the
 * cable, restarts by itself, and the line of how long the way back stays open.
 */
</script>

<script setup lang="ts">
import type { PlanShown } from '@plain-slate/api'
import { rangeWords, stepWords } from '@plain-slate/texts'
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { placesOf, runsIn, spanOf } from './strip.ts'

const props = defineProps<{ plan: PlanShown }>()
const say = useSay()
const places = computed(() => placesOf(props.plan.steps, props.plan.strip.stretches))
type Stretch = PlanShown['strip']['stretches'][number]
const steps = ({ from, to }: { from: number; to: number }) =>
  from === to ? String(from) : `${from}–${to}`
const says = (stretch: Stretch) =>
  say('strip.says', {
    steps: steps(stretch),
    leaves: say(`cut.${stretch.leaves}`),
    time: rangeWords(say, stretch.seconds),
  })
const lanes = computed(() => {
  const { hands, cable, restarts } = props.plan.strip
  return [
    { name: 'hands', runs: runsIn(hands) },
    { name: 'cable', runs: runsIn(cable) },
    { name: 'restarts', runs: restarts.map((number) => ({ from: number, to: number })) },
  ] as const
})
const back = computed(() => {
  const until = props.plan.wayBackUntil
  return until === null || until === 0 ? undefined : { from: 1, to: until }
})
const wordsOf = (run: { from: number; to: number }) => {
  const step = props.plan.steps.find(({ number }) => number === run.from)
  return step === undefined ? '' : `${steps(run)}: ${stepWords(say, step)}`
}
</script>

<template>
  <div class="strip scroll-x" tabindex="0" role="group" :aria-label="say('plan.strip')">
    <div class="lane top">
      <span class="name">{{ say('strip.left') }}</span>
      <ol class="track">
        <li
          v-for="stretch in plan.strip.stretches"
          :key="stretch.from"
          :class="['stretch', stretch.leaves]"
          :style="spanOf(places, stretch)"
          :title="says(stretch)"
        >
          <span aria-hidden="true">
            <svg v-if="stretch.leaves === 'dead'" width="12" height="11" viewBox="0 0 12 11">
              <path d="M6 0L12 11H0Z" />
            </svg>
            <b class="mono">{{ steps(stretch) }}</b>
            <span class="leaves">{{ say(`strip.${stretch.leaves}`) }}</span>
          </span>
          <span class="visually-hidden">{{ says(stretch) }}</span>
        </li>
      </ol>
    </div>
    <div v-for="lane in lanes" :key="lane.name" class="lane">
      <span class="name">{{ say(`strip.${lane.name}`) }}</span>
      <ol class="track thin" :class="lane.name">
        <li
          v-for="run in lane.runs"
          :key="run.from"
          :style="spanOf(places, run)"
          :title="wordsOf(run)"
        >
          <span class="visually-hidden">{{ wordsOf(run) }}</span>
        </li>
      </ol>
    </div>
    <div class="lane">
      <span class="name">{{ say('strip.back') }}</span>
      <div class="track thin back" :title="back ? say('plan.back', { step: back.to }) : ''">
        <i v-if="back" :style="spanOf(places, back)" />
        <span class="visually-hidden">{{
          back ? say('plan.back', { step: back.to }) : say('plan.back.none')
        }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.lane {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 5px;
  min-width: 620px;
}
.name {
  width: 88px;
  flex: none;
  font-size: 13px;
}
.track {
  position: relative;
  flex: 1;
  height: 12px;
  background: var(--raised);
  list-style: none;
  margin: 0;
  padding: 0;
}
.top .track {
  height: 42px;
  background: transparent;
}
.track > li,
.track > i {
  position: absolute;
  top: 0;
  bottom: 0;
}
.stretch {
  border-right: 2px solid var(--sheet);
  border-top: 5px solid var(--lichen);
  background: var(--raised);
  padding: 3px 4px;
  font-size: 12.5px;
  line-height: 1.2;
  overflow: hidden;
  white-space: nowrap;
}
.leaves {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
}
.redo,
.loop-data-safe,
.needs-other-package {
  border-top: 5px double var(--ochre);
}
.data-lost,
.dead {
  border-top-color: var(--brick);
  background: color-mix(in srgb, var(--brick) 14%, var(--sheet));
}
path {
  fill: var(--brick);
}
.hands li {
  background: var(--ink);
}
.cable li {
  background: repeating-linear-gradient(90deg, var(--ink-2) 0 6px, var(--line) 6px 12px);
}
.restarts li {
  border-left: 3px solid var(--ink);
}
.back i {
  background: var(--lichen);
  top: 4px;
  bottom: 4px;
}
@media (max-width: 700px) {
  .name {
    width: 64px;
  }
}
</style>
