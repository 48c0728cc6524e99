/**
 * The way out of a state after a cut: run, not assumed. Charge full, the mode entered in which the run goes on, and it
 * taken up from its journal; or the same plan from its beginning. Reads a state; gives whether it reaches the end of
 * its plan. Once it stands where the run that was never cut stood, it goes on as that did.
 */
import { canonical } from '../canon/canon.ts'
import type { Json } from '../canon/canon.ts'
import type { Command } from '../command/command.ts'
import { modeOf } from '../command/command.ts'
import { waysByHand } from '../modes/ways.ts'
import type { Plan } from '../plan/plan.ts'
import type { JournalEntry } from '../run/journal.ts'
import { placeOf } from '../run/journal.ts'
import { begin, takeUp } from '../run/run.ts'
import type { Mode } from '../terms/device.ts'
import type { DeviceModel, Part } from '../twin/state.ts'
import type { Nature } from '../twin/stepped.ts'
import { isMute } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import type { Changing } from './cuts.ts'
import { isChanging } from './cuts.ts'
import type { Scene } from './drive.ts'
import { drive } from './drive.ts'

/** How a state is left behind: taken up where it was left, by the same plan from its beginning, or not at all. */
export type WayOut = 'reaches' | 'again' | 'none'

/** The scene before a command that changes the device. */
export type Change = { readonly scene: Scene; readonly command: Changing }

export type Uncut = {
  readonly nature: Nature
  readonly plan: Plan
  readonly commands: readonly Command[]
  /** The run that was never cut: before each change, and at its end. */
  readonly changes: readonly Change[]
  readonly end: Scene
}

/** Runs the way out once per distinct state after a cut, and remembers it. Charge and clock make none distinct. */
export function wayOutFinder(
  uncut: Uncut,
): (left: DeviceModel, journal: readonly JournalEntry[]) => WayOut {
  const known = new Map<string, WayOut>()
  /* One that did not reach its end (its cell ran empty) tells nothing of one that was charged on the way. */
  const joined = isThere(uncut.plan, uncut.end) ? uncut.changes : []
  const stood = new Map(joined.map(({ scene }) => [scene.state.next, scene.device]))
  return (left, journal) => {
    const key = `${journal.length} ${textOf(left)}`
    const found = known.get(key) ?? runOut(uncut, stood, left, journal)
    known.set(key, found)
    return found
  }
}

/**
 * A device as text, but for its charge, its clock and who spoke last: equal texts, devices that go on alike while
 * there is charge.
 */
function textOf({ parts, battery, at, epoch, returns, ...rest }: DeviceModel): string {
  return `${battery > 0} ${canonical(rest as unknown as Json)} ${partsText(parts)}`
}

/** Parts as text, each made once: states share the parts that they did not change. */
const partTexts = new WeakMap<Part, string>()
export function partsText(parts: DeviceModel['parts']): string {
  let text = ''
  for (const [name, part] of Object.entries(parts)) {
    const known = partTexts.get(part) ?? canonical(part as unknown as Json)
    partTexts.set(part, known)
    text += `${name} ${known}\n`
  }
  return text
}

function runOut(
  { nature, plan, commands, end }: Uncut,
  stood: ReadonlyMap<number, DeviceModel>,
  left: DeviceModel,
  journal: readonly JournalEntry[],
): WayOut {
  const charged = step(nature, left, { kind: 'charge', percent: 100 }, left.at).device
  const { next } = placeOf(journal)
  const wanted = modeOf(commands[next]) ?? charged.mode
  const awake = isMute(nature.family, charged) ? brought(nature, charged, wanted) : charged
  if (!isMute(nature.family, awake)) {
    const turn = takeUp(plan.serial, 2, commands, journal)
    const met = { uncut: false }
    const last = drive(nature, awake, turn, journal, (scene, command) => {
      const then = scene.state.next > next && isChanging(command) && stood.get(scene.state.next)
      met.uncut = then !== undefined && then !== false && textOf(then) === textOf(scene.device)
      return met.uncut
    })
    if (isThere(plan, met.uncut ? end : last)) return 'reaches'
  }
  return againFrom(nature, plan, commands, charged) ? 'again' : 'none'
}

const isThere = (plan: Plan, { state, device }: Pick<Scene, 'state' | 'device'>): boolean => {
  const wiped = plan.steps.some((one) => one.kind === 'first-start' && one.wiped)
  const kept = wiped || device.data.form === 'readable'
  return state.phase.kind === 'ended' && kept && device.outcome === 'normal'
}

/** What it has installed by itself cannot be gone on with: the same plan from where it began reaches its end. */
function againFrom(
  nature: Nature,
  plan: Plan,
  commands: readonly Command[],
  left: DeviceModel,
): boolean {
  const installs = plan.steps.some(({ kind }) => kind === 'push' || kind === 'install')
  const first = plan.steps.find((one) => one.kind === 'meet')
  if (!installs || first?.kind !== 'meet') return false
  const there = brought(nature, left, first.mode)
  return isThere(plan, drive(nature, there, begin(plan.serial, 3, commands)))
}

/** By the family's ways into a mode, as far as hands go them: from where it is told on over the link, the run does that. */
function brought(nature: Nature, device: DeviceModel, to: Mode): DeviceModel {
  let here = device
  for (const way of waysByHand(nature.family, device.mode, to, device.permission) ?? []) {
    if (!way.hands) break
    here = step(nature, here, { kind: 'keys', to: way.to }, here.at).device
  }
  return here
}
