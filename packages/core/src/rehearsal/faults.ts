/**
 * A whole run on the twin with faults that a seed decides: where the cable comes out, where the computer
 * fails. Reads a device, a plan and a seed; gives the journal with its times and the device at the end,
 * the same for the same three. The book's runs of the demo are made and replayed with this.
 */
import type { Plan } from '../plan/plan.ts'
import type { JournalEntry } from '../run/journal.ts'
import { begin, takeUp } from '../run/run.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import { afterCut } from './cuts.ts'
import type { Scene } from './drive.ts'
import { drive } from './drive.ts'
import { flatten } from './rehearse.ts'

/** A fault at the nth piece: its device is lost after half of it, and met again. */
export type Fault = { readonly piece: number; readonly kind: 'cable' | 'computer' }

export type RunMade = {
  readonly journal: readonly JournalEntry[]
  readonly device: DeviceModel
  readonly phase: Scene['state']['phase']
  readonly losses: number
}

/** How long a device that was lost stays away, ms of model time. */
const AWAY_MS = 20_000

/** Runs a plan to where it stands still, through its faults. */
export function runWithFaults(
  nature: Nature,
  device: DeviceModel,
  plan: Plan,
  faults: readonly Fault[],
): RunMade {
  const { commands } = flatten(plan)
  let epoch = 1
  let scene: Scene = {
    state: begin(plan.serial, epoch, commands).state,
    device,
    journal: [],
    linked: false,
  }
  let turn = begin(plan.serial, epoch, commands)
  for (const fault of [...faults].sort((a, b) => a.piece - b.piece)) {
    let met = scene.journal.filter(
      ({ kind, command }) => kind === 'done' && commands[command]?.kind === 'put',
    ).length
    scene = drive(nature, scene.device, turn, scene.journal, (_, command) => {
      if (command.kind === 'put') met += 1
      return command.kind === 'put' && met > fault.piece
    })
    const under = commands[scene.state.next]
    if (under?.kind !== 'put') break
    const left = afterCut(nature, scene, under, Math.floor(under.size / 2), fault.kind)
    epoch += 1
    turn = takeUp(plan.serial, epoch, commands, scene.journal)
    const back = step(nature, left, { kind: 'facts' }, left.at + AWAY_MS).device
    scene = { ...scene, device: back }
  }
  const end = drive(nature, scene.device, turn, scene.journal)
  return {
    journal: end.journal,
    device: end.device,
    phase: end.state.phase,
    losses: epoch - 1,
  }
}
