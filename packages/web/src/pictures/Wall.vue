<script lang="ts">
/**
 * The wall: partitions as courses of bricks to cube-root scale, in device order; one course now, one after
 * each package. Upright stripes: written; white: not in the package; flat grey: same and left alone;
 * dots: the customer's, kept; crossed: erased; double line: never touched.
 */
import type { BrickFate } from '@plain-slate/core'

export type BrickShown = {
  readonly partition: string
  readonly fate: BrickFate
  readonly label: string
  /** The true figure, for hover and screen readers. */
  readonly says: string
  /** Share that is written, where it is being written; with its tick when read back. */
  readonly done?: number
  readonly readBack?: boolean
}
export type CourseShown = { readonly title: string; readonly bricks: readonly BrickShown[] }
</script>

<script setup lang="ts">
import { BRICK_FATES } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { GAP_PX, columnsOf, widthOf } from './wall.ts'

const props = defineProps<{
  /** Partitions in device order: name and bytes. */
  partitions: readonly { readonly name: string; readonly bytes: number }[]
  courses: readonly CourseShown[]
  /** The legend names only what is drawn. */
  legend?: boolean
}>()
const say = useSay()
const laid = computed(() => ({
  gridTemplateColumns: columnsOf(props.partitions),
  gap: `${GAP_PX}px`,
  minWidth: `${widthOf(props.partitions)}px`,
}))
const drawn = computed(() =>
  BRICK_FATES.filter((fate) =>
    props.courses.some(({ bricks }) => bricks.some((brick) => brick.fate === fate)),
  ),
)
</script>

<template>
  <div class="scroll-x" tabindex="0" role="group" :aria-label="say('plan.wall')">
    <div v-for="course in courses" :key="course.title" class="course">
      <div v-if="course.title !== ''" class="title mono">{{ course.title }}</div>
      <ol class="bricks" :style="laid" :aria-label="course.title">
        <li
          v-for="brick in course.bricks"
          :key="brick.partition"
          :class="['brick', brick.fate, { under: brick.done !== undefined }]"
          :title="brick.says"
        >
          <span
            v-if="brick.done !== undefined"
            class="filled"
            :style="{ width: `${brick.done * 100}%` }"
          />
          <span class="label" aria-hidden="true">{{ brick.label }}</span>
          <span v-if="brick.readBack" class="tick" aria-hidden="true">✓</span>
          <span class="visually-hidden">{{ brick.says }}</span>
        </li>
      </ol>
    </div>
    <ul v-if="legend" class="legend">
      <li v-for="fate in drawn" :key="fate">
        <i :class="['brick', fate]" />{{ say(`brick.${fate}`) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.course {
  display: flex;
  gap: 8px;
  align-items: stretch;
  margin-bottom: 4px;
}
.title {
  width: 88px;
  flex: none;
  font-size: 13px;
  align-self: center;
}
.bricks {
  flex: 1;
  display: grid;
  list-style: none;
  margin: 0;
  padding: 0;
}
.brick {
  position: relative;
  min-height: 34px;
  border: 1px solid var(--line);
  background: var(--sheet);
  overflow: hidden;
  font-size: 12px;
}
.label {
  position: absolute;
  left: 2px;
  top: 2px;
  padding: 0 2px;
  background: var(--sheet);
  white-space: nowrap;
}
.written {
  border-color: var(--sky);
}
.written,
.filled {
  background: repeating-linear-gradient(
    90deg,
    color-mix(in srgb, var(--sky) 22%, var(--sheet)) 0 7px,
    color-mix(in srgb, var(--sky) 8%, var(--sheet)) 7px 14px
  );
}
.under.written {
  background: var(--sheet);
}
.filled {
  position: absolute;
  inset: 0 auto 0 0;
}
.left {
  background: var(--raised);
}
.left .label {
  background: transparent;
}
.customer {
  border-color: var(--lichen);
  background: radial-gradient(circle, var(--lichen) 1px, transparent 1.3px) 0 0 / 9px 9px;
}
.erased {
  border-color: var(--brick);
  background:
    linear-gradient(to top right, transparent 48%, var(--brick) 48% 52%, transparent 52%),
    linear-gradient(to bottom right, transparent 48%, var(--brick) 48% 52%, transparent 52%);
}
.untouched {
  border: 3px double var(--plum);
  color: var(--plum);
}
.tick {
  position: absolute;
  right: 3px;
  bottom: 1px;
  color: var(--lichen);
  font-weight: 700;
}
.legend {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  font-size: 12.5px;
  color: var(--ink-2);
}
.legend li {
  display: flex;
  gap: 6px;
  align-items: center;
}
.legend .brick {
  width: 18px;
  min-height: 12px;
  height: 12px;
}
@media (max-width: 700px) {
  .title {
    width: 76px;
  }
}
</style>
