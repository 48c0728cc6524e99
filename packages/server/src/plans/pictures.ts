/** What the strip and the wall are drawn from, as the contract takes it. */
import type { PlanShown } from '@plain-slate/api'
import type { Effect, Family, Plan, Table } from '@plain-slate/core'
import { coursesOf, effectsOf, familyTable, roleOf, stripOf, sum } from '@plain-slate/core'
import type { AtPort } from '../devices/case.ts'
import type { PlacedStep } from './shown.ts'

export function stripShown(
  plan: Plan,
  family: Family,
  steps: readonly PlacedStep[],
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
      leaves: one.leaves as PlacedStep['worst'],
      seconds: { ...one.seconds },
    })),
    hands: [...strip.hands],
    cable: [...strip.cable],
    restarts: [...strip.restarts],
  }
}

const MIB = 1024 * 1024
/** Flash of a device whose table was not read: as much for the customer as for all the rest. */
const ROOM = 2

/** Partitions in device order at model size: the device's own table, else the family's. */
export function partitionsOf({ family, read }: Pick<AtPort, 'family' | 'read'>) {
  const { scale, storageGb } = read.facts
  const table = read.table ?? assumed(family, storageGb, scale)
  return [...table.partitions]
    .sort((a, b) => a.start - b.start)
    .map(({ name, sectors }) => ({
      name,
      role: roleOf(family, name) ?? '',
      bytes: sectors * table.sectorBytes * scale,
    }))
}

function assumed(family: Family, storageGb: number, scale: number): Table {
  const fixed = family.partitions.reduce((total, { mib }) => {
    const one = typeof mib === 'object' ? mib[String(storageGb)] : mib
    return total + (typeof one === 'number' ? one : 0)
  }, 0)
  return familyTable(family, storageGb, scale, Math.ceil((fixed * ROOM) / scale + 1) * MIB)
}

export function wallShown(
  plan: Plan,
  found: AtPort,
  steps: readonly PlacedStep[],
): PlanShown['wall'] {
  const partitions = partitionsOf(found)
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
    courses: coursesOf(plan, found.family, names, seconds).map(({ title, bricks }) => ({
      title,
      bricks: bricks.map(({ partition, fate, seconds: of }) => ({
        partition,
        fate,
        seconds: of === undefined ? null : { ...of },
      })),
    })),
  }
}
