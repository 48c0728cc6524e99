/**
 * Rehearsing a plan on the twin: to its end, and cut short at every piece by cable, battery and
 * computer. Reads a plan and a device; gives how it ends, and per step the worst that a cut leaves. The
 * way out of each state after a cut is run, not assumed.
 */
import { commandsOf } from '../command/command.ts'
import type { Command } from '../command/command.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import type { Plan } from '../plan/plan.ts'
import { isKind } from '../family/modes.ts'
import { begin } from '../run/run.ts'
import type { DeviceModel } from '../twin/state.ts'
import { startOf } from '../twin/start.ts'
import type { Nature } from '../twin/stepped.ts'
import { isAsExpected } from '../run/expected.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import type { CutKind } from './cuts.ts'
import { CUT_KINDS, afterCut, isChanging, positionsOf } from './cuts.ts'
import type { Change } from './way-out.ts'
import { partsText, wayOutFinder } from './way-out.ts'
import type { WayOut } from './way-out.ts'
import type { Scene } from './drive.ts'
import { drive } from './drive.ts'

/** What a cut leaves, from mild to grave. */
export const CUT_CLASSES = [
  'unaffected',
  'take-up',
  'redo',
  'loop-data-safe',
  'needs-other-package',
  'data-lost',
  'dead',
] as const
export type CutClass = (typeof CUT_CLASSES)[number]

/** Seconds in which a cut would cost the device, the data, or work that can be mended: each as a sum. */
export function riskSeconds(atRisk: Readonly<Partial<Record<CutClass, number | undefined>>>): {
  readonly dead: number
  readonly lost: number
  readonly mended: number
} {
  const of = (one: CutClass) => atRisk[one] ?? 0
  return {
    dead: of('dead'),
    lost: of('data-lost'),
    mended: of('redo') + of('loop-data-safe') + of('needs-other-package'),
  }
}

/** One cut: at which command, after how many bytes of its piece (more than it has: once it is kept), how. */
export type Cut = { readonly command: number; readonly bytes: number; readonly kind: CutKind }

export type CutResult = Cut & { readonly leaves: CutClass; readonly step: number }

export type Rehearsal = {
  readonly end: Scene
  /** Model time of the whole, ms. */
  readonly lasts: number
}

/** The commands of a plan, and the step each belongs to. */
export function flatten(plan: Plan): {
  readonly commands: readonly Command[]
  readonly steps: readonly number[]
} {
  const flat = plan.steps.flatMap((one) =>
    commandsOf(one).map((command) => ({ command, step: one.number })),
  )
  return { commands: flat.map(({ command }) => command), steps: flat.map((one) => one.step) }
}

/** The whole plan on the twin. */
export function rehearse(nature: Nature, device: DeviceModel, plan: Plan): Rehearsal {
  const { commands } = flatten(plan)
  const end = drive(nature, device, begin(plan.serial, 1, commands))
  return { end, lasts: end.device.at - device.at }
}

/**
 * Whether a rehearsal ended as its plan promises: the device starts, says what is expected of it, and the
 * customer's data are readable exactly where they are to be kept.
 */
export function keepsPromise(
  { expected }: Plan,
  fates: readonly { readonly fate: Fate; readonly partition: string }[],
  end: DeviceModel,
  says: DeviceFacts,
): boolean {
  const own = fates.filter(({ partition }) => partition !== '')
  const kept = own.every(({ fate }) => fate === 'kept')
  return (
    isAsExpected(expected, { ...says, outcome: end.outcome }) &&
    (own.length === 0 || (end.data.form === 'readable') === kept)
  )
}

/** Every cut of every command that changes the device, with what it leaves. */
export function rehearseCuts(
  nature: Nature,
  device: DeviceModel,
  plan: Plan,
): readonly CutResult[] {
  const { commands, steps } = flatten(plan)
  const { changes, end } = changesUnderWay(nature, device, plan, commands)
  const wayOut = wayOutFinder({ nature, plan, commands, changes, end })
  return changes.flatMap(({ scene, command }) =>
    positionsOf(command).flatMap((bytes) =>
      CUT_KINDS.map((kind): CutResult => {
        const at = scene.state.next
        const left = afterCut(nature, scene, command, bytes, kind)
        const leaves = classify(nature, scene.device, left, kind, wayOut(left, scene.journal))
        return { command: at, bytes, kind, leaves, step: steps[at] ?? 0 }
      }),
    ),
  )
}

/**
 * The gravest class per step of the plan. A step that writes nothing is left as the next piece would find
 * the device without power: between two images that belong together that is no state to start from.
 */
export function worstByStep(
  plan: Plan,
  results: readonly CutResult[],
): ReadonlyMap<number, CutClass> {
  const gravity = (one: CutClass) => CUT_CLASSES.indexOf(one)
  return new Map(
    plan.steps.map(({ number }) => {
      const own = results.filter((result) => result.step === number)
      const mine = (own.length > 0 ? own : between(results, number)).map(({ leaves }) => leaves)
      const worst = mine.reduce(
        (a, b) => (gravity(b) > gravity(a) ? b : a),
        'unaffected' as CutClass,
      )
      return [number, worst]
    }),
  )
}

/** What loss of power before the next piece leaves; nothing after the last one. */
function between(results: readonly CutResult[], number: number): readonly CutResult[] {
  const next = results.find(({ step: at }) => at > number)
  return results.filter(
    ({ command, bytes, kind }) => command === next?.command && bytes === 0 && kind === 'battery',
  )
}

/** The scene before each command that changes the device, from one drive through the whole plan. */
export function changesUnderWay(
  nature: Nature,
  device: DeviceModel,
  plan: Plan,
  commands: readonly Command[],
): { readonly changes: readonly Change[]; readonly end: Scene } {
  const changes: Change[] = []
  const end = drive(nature, device, begin(plan.serial, 1, commands), [], (scene, command) => {
    if (isChanging(command)) changes.push({ scene, command })
    return false
  })
  return { changes, end }
}

function classify(
  nature: Nature,
  before: DeviceModel,
  left: DeviceModel,
  kind: CutKind,
  wayOut: WayOut,
): CutClass {
  const { outcome } = startOf(nature.family, left, nature.catalogue)
  if (outcome === 'dead' && isKind(nature.family, left.mode, 'off')) return 'dead'
  if (left.data.form !== 'readable' && before.data.form === 'readable') return 'data-lost'
  if (wayOut === 'none') return 'needs-other-package'
  if (wayOut === 'again') return 'redo'
  if (outcome === 'loop') return 'loop-data-safe'
  if (kind !== 'battery') return 'take-up'
  const same = partsText(left.parts) === partsText(before.parts) && left.files === before.files
  return same ? 'unaffected' : 'redo'
}
