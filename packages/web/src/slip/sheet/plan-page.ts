/** The plan page of the slip that the address names, and the wall and the reasons in words. */
import type { PlanShown } from '@plain-slate/api'
import { restingFate } from '@plain-slate/core'
import { mib, rangeWords } from '@plain-slate/texts'
import type { Say } from '@plain-slate/texts'
import { computed } from 'vue'
import type { BrickShown, CourseShown } from '../../pictures/Wall.vue'
import { clockOf } from '../../pictures/wall.ts'
import { useRead } from '../../server/query.ts'
import { useJob } from '../job.ts'

type Brick = PlanShown['wall']['courses'][number]['bricks'][number]
type Fate = Brick['fate']

export function usePlanPage() {
  const { params, job } = useJob()
  const read = useRead('jobPlan', () => ({ params: params.value }), {
    enabled: computed(
      () =>
        (job.data.value?.route ?? job.data.value?.plan ?? null) !== null ||
        job.data.value?.run !== null,
    ),
    keep: true,
  })
  /** What is shown: the plan as it was taken while it holds, else as it would be now. */
  const plan = computed(() => {
    const page = read.data.value
    if (page?.taken?.changes === null) return page.taken.shown
    return page?.now ?? undefined
  })
  return { read, plan }
}

/** Partition sizes and courses: one now, one after each package. */
export function wallOf(say: Say, { wall }: Pick<PlanShown, 'wall'>): readonly CourseShown[] {
  const sizeOf = new Map(wall.partitions.map(({ name, bytes }) => [name, bytes]))
  const says = (partition: string, fate: Fate, seconds: Brick['seconds']) => {
    const about = { partition, mib: mib(sizeOf.get(partition) ?? 0), fate: say(`brick.${fate}`) }
    return seconds === null
      ? say('brick.says', about)
      : say('brick.says.time', { ...about, time: rangeWords(say, seconds) })
  }
  const now: CourseShown = {
    title: say('plan.wall.now'),
    bricks: wall.partitions.map(({ name, role, bytes }): BrickShown => {
      const about = { partition: name, mib: mib(bytes), fate: say('plan.wall.now') }
      return {
        partition: name,
        fate: restingFate(role, 'absent'),
        label: name,
        says: say('brick.says', about),
      }
    }),
  }
  return [
    now,
    ...wall.courses.map(({ title, bricks }) => ({
      title,
      bricks: bricks.map(({ partition, fate, seconds }) => ({
        partition,
        fate,
        label: labelOf(say, fate, seconds),
        says: says(partition, fate, seconds),
      })),
    })),
  ]
}

function labelOf(say: Say, fate: Fate, seconds: Brick['seconds']): string {
  if (fate === 'written' && seconds !== null) return clockOf(seconds.high)
  if (fate === 'left') return say('brick.label.left')
  if (fate === 'customer') return say('brick.label.kept')
  return fate === 'erased' ? say('brick.label.erased') : ''
}
