/**
 * A plan laid out for the two pictures that are drawn of it: the strip in time and the wall in courses.
 * Reads a plan, its steps' seconds and what a cut in each leaves; gives stretches of equal risk, the lanes
 * under them, and per package what becomes of every partition. Arithmetic only, no drawing.
 */
import { isNeverWritten } from '../family/never.ts'
import type { Effect } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import type { Seconds } from '../pace/pace.ts'
import { effectsOf } from './folds.ts'
import type { Plan } from './plan.ts'

/** One step as the strip needs it; `leaves` is what the worst cut in it leaves. */
export type TimedStep = {
  readonly number: number
  readonly seconds: Seconds
  readonly leaves: string
  readonly effect: Effect
}

/** A stretch of steps whose cuts leave the same. */
export type Stretch = {
  readonly from: number
  readonly to: number
  readonly leaves: string
  readonly seconds: Seconds
}

export type Strip = {
  readonly stretches: readonly Stretch[]
  /** Step numbers with hands, with the cable in, and with a restart by itself. */
  readonly hands: readonly number[]
  readonly cable: readonly number[]
  readonly restarts: readonly number[]
}

/** Lays a plan out in time. */
export function stripOf(steps: readonly TimedStep[]): Strip {
  const stretches: Stretch[] = []
  for (const { number, seconds, leaves } of steps) {
    const last = stretches.at(-1)
    if (last?.leaves !== leaves) {
      stretches.push({ from: number, to: number, leaves, seconds })
      continue
    }
    const { low, high } = last.seconds
    stretches[stretches.length - 1] = {
      ...last,
      to: number,
      seconds: { low: low + seconds.low, high: high + seconds.high },
    }
  }
  const numbers = (has: (effect: Effect) => boolean) =>
    steps.filter(({ effect }) => has(effect)).map(({ number }) => number)
  return {
    stretches,
    hands: numbers(({ hands }) => hands),
    cable: numbers(({ cable }) => cable),
    restarts: numbers(({ restarts }) => restarts),
  }
}

/** What a package makes of a partition. */
export const BRICK_FATES = ['written', 'left', 'absent', 'customer', 'erased', 'untouched'] as const
export type BrickFate = (typeof BRICK_FATES)[number]
export type Brick = {
  readonly partition: string
  readonly fate: BrickFate
  /** Seconds of its writing; undefined where nothing is written. */
  readonly seconds: Seconds | undefined
}
/** What becomes of a partition that no package writes: by its role, and otherwise as is given. */
export const restingFate = <Else extends BrickFate>(
  role: string,
  otherwise: Else,
): 'customer' | 'untouched' | Else =>
  role === 'customer' ? 'customer' : role === 'calib' ? 'untouched' : otherwise

export type Course = { readonly title: string; readonly bricks: readonly Brick[] }

/** One course a package, partitions in device order. */
export function coursesOf(
  plan: Plan,
  family: Family,
  partitions: readonly string[],
  secondsOf: (pack: string, partition: string) => Seconds,
): readonly Course[] {
  const erased = new Set(effectsOf(plan, family).flatMap(({ erases }) => erases))
  return plan.packages.map(({ key, manifest, decisions }) => ({
    title: manifest.title,
    bricks: partitions.map((partition): Brick => {
      const role = family.partitions.find(({ name }) => name === partition)?.role
      const decision = decisions.find(({ image }) => image.partition === partition)
      const fate = fateOf()
      const seconds = fate === 'written' ? secondsOf(key, partition) : undefined
      return { partition, fate, seconds }

      function fateOf(): BrickFate {
        if (erased.has(partition)) return 'erased'
        if (decision !== undefined) return decision.write ? 'written' : 'left'
        if (role === 'customer') return 'customer'
        return role !== undefined && isNeverWritten(family, role) ? 'untouched' : 'absent'
      }
    }),
  }))
}
