/**
 * Rehearsing a plan on the twin: to its end, and cut short at every piece by cable, battery and
 * computer. Reads a plan and a device; gives how it ends, and per step the worst that a cut leaves. The
 * way out of each state after a cut is run, not assumed.
 */
import { canonical } from '../canon/canon.ts'
import type { Json } from '../canon/canon.ts'
import { commandsOf, modeOf } from '../command/command.ts'
import type { Command } from '../command/command.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import type { Plan } from '../plan/plan.ts'
import { isKind } from '../family/modes.ts'
import { waysTo } from '../modes/ways.ts'
import type { JournalEntry } from '../run/journal.ts'
import { placeOf } from '../run/journal.ts'
import { begin, takeUp } from '../run/run.ts'
import type { Mode } from '../terms/device.ts'
import { BLOCK_BYTES } from '../twin/blocks.ts'
import type { DeviceModel, Part } from '../twin/state.ts'
import { startOf } from '../twin/start.ts'
import type { Nature } from '../twin/stepped.ts'
import { isMute } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import { cutAt } from '../twin/written.ts'
import { isAsExpected } from '../run/expected.ts'
import type { DeviceFacts } from '../wire/facts.ts'
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
export const CUT_KINDS = ['cable', 'battery', 'computer'] as const
export type CutKind = (typeof CUT_KINDS)[number]

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

/**
 * Where a command is cut. A piece: before its first byte, off a block, at its last byte unacknowledged, after
 * it. Anything else that changes the device: before it is heard, and once it is done and nothing was said.
 */
function positionsOf(command: Changing): readonly number[] {
  if (command.kind !== 'put') return [0, 1]
  const { size } = command
  const off = Math.min(size - 1, Math.floor(size / 2 / BLOCK_BYTES) * BLOCK_BYTES + 100)
  return [0, off, size, size + 1]
}

/** Every cut of every command that changes the device, with what it leaves. */
export function rehearseCuts(
  nature: Nature,
  device: DeviceModel,
  plan: Plan,
): readonly CutResult[] {
  const { commands, steps } = flatten(plan)
  const wayOut = wayOutFinder(nature, plan, commands)
  return changesUnderWay(nature, device, plan, commands).flatMap(({ scene, command }) =>
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

type Put = Extract<Command, { kind: 'put' }>
type Changing = Extract<Command, { kind: 'put' | 'erase' | 'lock' | 'slot' }>

const isChanging = (command: Command): command is Changing =>
  command.kind === 'put' ||
  command.kind === 'erase' ||
  command.kind === 'lock' ||
  command.kind === 'slot'

/** The scene before each command that changes the device, from one drive through the whole plan. */
function changesUnderWay(
  nature: Nature,
  device: DeviceModel,
  plan: Plan,
  commands: readonly Command[],
): readonly { readonly scene: Scene; readonly command: Changing }[] {
  const found: { scene: Scene; command: Changing }[] = []
  drive(nature, device, begin(plan.serial, 1, commands), [], (scene, command) => {
    if (isChanging(command)) found.push({ scene, command })
    return false
  })
  return found
}

/** The device after a cut of the command that a scene is about to send. */
export function afterCut(
  nature: Nature,
  scene: Scene,
  command: Changing,
  bytes: number,
  kind: CutKind,
): DeviceModel {
  if (command.kind === 'put') return afterPutCut(nature, scene, command, bytes, kind)
  const { state, device } = scene
  const { mode: _mode, ...input } = command
  const done =
    bytes === 0 ? device : step(nature, device, { ...input, epoch: state.epoch }, device.at).device
  return cutAt(nature.family, done, 0, kind === 'battery')
}

function afterPutCut(
  nature: Nature,
  { state, device }: Scene,
  command: Put,
  bytes: number,
  kind: CutKind,
): DeviceModel {
  const { epoch } = state
  const { size } = command
  const begun = step(nature, device, { ...command, kind: 'begin', epoch }, device.at).device
  const powerGone = kind === 'battery'
  if (bytes <= size) return cutAt(nature.family, begun, bytes, powerGone)
  const kept = step(nature, begun, { kind: 'chunk', epoch, offset: 0, size }, begun.at).device
  const ended = step(nature, kept, { kind: 'finish', epoch }, kept.at).device
  return cutAt(nature.family, ended, size, powerGone)
}

/** How a state is left behind: taken up, or by the same plan from its own start, or not at all. */
type WayOut = 'reaches' | 'none'

/** Runs the way out once per distinct state after a cut, and remembers it. */
function wayOutFinder(
  nature: Nature,
  plan: Plan,
  commands: readonly Command[],
): (left: DeviceModel, journal: readonly JournalEntry[]) => WayOut {
  const known = new Map<string, WayOut>()
  return (left, journal) => {
    const key = `${journal.length} ${textOf(left)}`
    const found = known.get(key) ?? runOut(nature, plan, commands, left, journal)
    known.set(key, found)
    return found
  }
}

/** A device as text: equal texts, equal devices. */
const textOf = ({ parts, ...rest }: DeviceModel): string =>
  canonical(rest as unknown as Json) + partsText(parts)

/** Parts as text, each made once: states share the parts that they did not change. */
const partTexts = new WeakMap<Part, string>()
function partsText(parts: DeviceModel['parts']): string {
  let text = ''
  for (const [name, part] of Object.entries(parts)) {
    const known = partTexts.get(part) ?? canonical(part as unknown as Json)
    partTexts.set(part, known)
    text += `${name} ${known}\n`
  }
  return text
}

/** Charge full, the mode entered in which the run goes on, and it taken up from its journal under a new epoch. */
function runOut(
  nature: Nature,
  plan: Plan,
  commands: readonly Command[],
  left: DeviceModel,
  journal: readonly JournalEntry[],
): WayOut {
  const charged = step(nature, left, { kind: 'charge', percent: 100 }, left.at).device
  const wanted = modeOf(commands[placeOf(journal).next]) ?? charged.mode
  const awake = isMute(nature.family, charged) ? brought(nature, charged, wanted) : charged
  if (isMute(nature.family, awake)) return 'none'
  const { state, device } = drive(nature, awake, takeUp(plan.serial, 2, commands, journal), journal)
  const wiped = plan.steps.some((one) => one.kind === 'first-start' && one.wiped)
  const kept = wiped || device.data.form === 'readable'
  return state.phase.kind === 'ended' && kept && device.outcome === 'normal' ? 'reaches' : 'none'
}

/** By the family's ways into a mode; as far as they go. */
function brought(nature: Nature, device: DeviceModel, to: Mode): DeviceModel {
  let here = device
  for (const way of waysTo(nature.family, device.mode, to, device.permission) ?? []) {
    const input = way.hands
      ? ({ kind: 'keys', to: way.to } as const)
      : ({ kind: 'restart', epoch: here.epoch, to: way.to } as const)
    here = step(nature, here, input, here.at).device
  }
  return here
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
  if (outcome === 'loop') return 'loop-data-safe'
  if (kind !== 'battery') return 'take-up'
  return partsText(left.parts) === partsText(before.parts) ? 'unaffected' : 'redo'
}
