/** What the strip and the wall are drawn from, as the contract takes it. */
import type { PlanShown } from '@plain-slate/api'
import type { CutClass, Effect, Family, PlacedStep, Plan } from '@plain-slate/core'
import {
  assumedTable,
  coursesOf,
  effectsOf,
  modelOf,
  roleOf,
  stripOf,
  sum,
} from '@plain-slate/core'
import type { AtPort } from '../devices/case.ts'

/** The plan in time: stretches whose cuts leave the same, and the lanes of hands, cable and restarts. */
export function stripShown(
  plan: Plan,
  family: Family,
  steps: readonly PlacedStep<CutClass>[],
): PlanShown['strip'] {
  const effects = effectsOf(plan, family)
  const strip = stripOf(
    steps.map(({ number, seconds, worst }, index) => ({
      number,
      seconds,
      leaves: worst,
      effect: effects[index] as Effect,
    })),
  )
  return {
    stretches: strip.stretches.map((one) => ({
      ...one,
      leaves: one.leaves as CutClass,
      seconds: { ...one.seconds },
    })),
    hands: [...strip.hands],
    cable: [...strip.cable],
    restarts: [...strip.restarts],
  }
}

/** Partitions in device order at model size: the device's own table, else the family's. */
export function partitionsOf({ family, read }: Pick<AtPort, 'family' | 'read'>) {
  const { scale, model, board, storageGb = modelOf(family, model)?.storages[0] ?? 1 } = read.facts
  const about = { model, storageGb, ...(board === undefined ? {} : { board }) }
  const table = read.table ?? assumedTable(family, about, scale)
  return [...table.partitions]
    .sort((a, b) => a.start - b.start)
    .map(({ name, sectors }) => ({
      name,
      role: roleOf(family, name) ?? '',
      bytes: sectors * table.sectorBytes * scale,
    }))
}

/** The device in courses, one a package: what becomes of each partition, with the seconds of writing it. */
export function wallShown(
  plan: Plan,
  family: Family,
  partitions: PlanShown['wall']['partitions'],
  steps: readonly PlacedStep<CutClass>[],
): PlanShown['wall'] {
  const seconds = (pack: string, partition: string) =>
    sum(
      plan.steps.flatMap((step, index) => {
        const mine = step.kind === 'write' && step.pack === pack
        const shown = steps[index]
        return mine && step.image.partition === partition && shown !== undefined
          ? [shown.seconds]
          : []
      }),
    )
  const names = partitions.map(({ name }) => name)
  return {
    partitions,
    courses: coursesOf(plan, family, names, seconds).map(({ title, bricks }) => ({
      title,
      bricks: bricks.map(({ partition, fate, seconds: of }) => ({
        partition,
        fate,
        seconds: of === undefined ? null : { ...of },
      })),
    })),
  }
}
