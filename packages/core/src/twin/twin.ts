/**
 * The twin: a device that answers. Reads its state, one input and the time; gives the new state, what it
 * says, and when it will have done. It executes the very commands an agent sends to a device, by the
 * effects and rules its family declares, and draws nothing from chance: `pick` between 0 and 1 says
 * where in a family's ranges this device lies.
 */
import { answersIn, isKind, modeProfile, takesIn } from '../family/modes.ts'
import { effectOf } from '../effect/effect.ts'
import { isNeverErased } from '../family/never.ts'
import { applied, raised } from './applied.ts'
import { keys, restart } from './boot.ts'
import { fileChunk, fileEnded, onFiles } from './files.ts'
import { confirmed, install } from './installing.ts'
import { cancelled } from './memory.ts'
import { closingRefused } from './locking.ts'
import { takePermit } from './permitting.ts'
import { factsOf, isGreyed } from './told.ts'
import type { DeviceModel } from './state.ts'
import type { Nature, Stepped, TwinInput } from './stepped.ts'
import {
  LOOKING,
  done,
  drained,
  isMute,
  lastsOf,
  refuse,
  runs,
  switchedOff,
  told,
} from './stepped.ts'
import { begin, chunk, digest, finish, look } from './writing.ts'

/** Executes one input at a time not before the device's own. */
export function step(nature: Nature, device: DeviceModel, input: TwinInput, at: number): Stepped {
  const now = idle(nature, device, at)
  const looks = input.kind === 'hello' && input.epoch === LOOKING
  if ('epoch' in input && !looks && input.epoch < now.epoch) return refuse(now, 'old-epoch')
  const met = 'epoch' in input && !looks ? { ...now, epoch: input.epoch } : now
  if (isHeldUp(nature, now, input)) return refuse(met, 'busy')
  switch (input.kind) {
    case 'hello':
    case 'facts':
      return saysFacts(nature, met, { looks, at })
    case 'tally':
      return tally(nature, met)
    case 'begin':
      return begin(nature, { ...met, incoming: undefined }, input)
    case 'chunk':
      return met.incoming === undefined ? chunk(nature, met, input) : fileChunk(nature, met, input)
    case 'finish':
      return met.incoming === undefined ? finish(nature, met) : fileEnded(met)
    case 'digest':
    case 'blocks':
    case 'read':
      return digest(nature, met, input)
    case 'look':
      return look(nature, met, input)
    case 'erase':
      return erase(nature, met, input.partition)
    case 'lock':
      return lock(nature, met, input.to)
    case 'merge':
      return merge(nature, met, input.do)
    case 'slot':
      return slot(nature, met, input.slot)
    case 'take-permit':
      return takePermit(nature, met, input.permit)
    case 'restart':
      return restart(nature, met, input.to)
    case 'keys':
      return keys(nature, met, input.to)
    case 'reset':
      return reset(nature, met)
    case 'lock-switch':
    case 'sign-out':
      return inSettings(nature, met, input)
    case 'power-off':
      return switchedOff(nature, met)
    case 'charge':
      return told({ ...met, battery: input.percent }, { kind: 'silent' })
    case 'file-put':
    case 'file-list':
    case 'file-digest':
    case 'file-drop':
      return onFiles(nature, met, input)
    case 'install':
      return install(nature, met, input)
    case 'confirm':
      return met.key === 'asked' ? pressed(nature, met) : confirmed(met)
    case 'permit':
      return told(permitted(nature, met, input.given), { kind: 'silent' })
  }
}

/** What a system that waits for a key does for nobody. */
const WANTS_SYSTEM: readonly TwinInput['kind'][] = [
  ...(['tally', 'restart', 'merge', 'permit', 'reset', 'lock-switch', 'sign-out'] as const),
  ...(['file-put', 'file-list', 'file-digest', 'file-drop', 'install'] as const),
]

const isHeldUp = ({ family }: Nature, device: DeviceModel, { kind }: TwinInput): boolean =>
  device.key === 'asked' && runs(family, device) && WANTS_SYSTEM.includes(kind)

/** The key that it waits for: its system goes on. */
const pressed = ({ family }: Nature, device: DeviceModel): Stepped =>
  told(runs(family, device) ? { ...device, key: 'none' } : device, { kind: 'silent' })

/** Its facts; a look asks for nothing that takes time. */
function saysFacts(
  nature: Nature,
  met: DeviceModel,
  { looks, at }: { readonly looks: boolean; readonly at: number },
): Stepped {
  if (isMute(nature.family, met)) return { device: met, output: { kind: 'silent' }, doneAt: at }
  const output = { kind: 'facts', facts: factsOf(nature, met) } as const
  return looks ? told(met, output) : done(nature, met, { kind: 'ask' }, output)
}

/** Time that passed with nothing to do: a mode that answers and does not charge drains, a merge goes on. */
function idle({ family }: Nature, device: DeviceModel, at: number): DeviceModel {
  const minutes = Math.max(0, at - device.at) / 60_000
  const charges = modeProfile(family, device.mode)?.charges === true
  const idles = answersIn(family, device.mode) && !charges
  const drains = idles ? family.drainPerMinute.idle * minutes : 0
  const later = at > device.at ? { ...device, at } : device
  const after = drained(family, later, drains)
  return merged(family, isLate(after) ? cancelled(after) : after)
}

/** It asked for a hand, and none came in time. */
const isLate = ({ confirmBy, at }: DeviceModel): boolean =>
  confirmBy !== undefined && at > confirmBy

/** A merge ends while its system runs; one that was left waits for the next start. */
function merged(family: Nature['family'], device: DeviceModel): DeviceModel {
  const { mergeUntil, at } = device
  if (mergeUntil === undefined || device.merge !== 'merging') return device
  if (!runs(family, device)) return { ...device, mergeUntil: undefined }
  return at < mergeUntil ? device : { ...device, merge: 'none', mergeUntil: undefined }
}

/** The customer's things, counted by a mode that knows of them: the system while it runs. */
function tally(nature: Nature, device: DeviceModel): Stepped {
  if (isMute(nature.family, device)) return told(device, { kind: 'silent' })
  if (!takesIn(nature.family, device.mode, 'tally')) return refuse(device, 'wrong-mode')
  const { items, bytes, form } = device.data
  const opens = form === 'readable'
  return done(nature, device, { kind: 'ask' }, { kind: 'tally', items, bytes, opens })
}

/** A partition erased by a mode that takes it for its role. */
function erase(nature: Nature, device: DeviceModel, partition: string): Stepped {
  const { family } = nature
  const part = device.parts[partition]
  if (!takesIn(family, device.mode, 'erase')) return refuse(device, 'wrong-mode')
  if (part === undefined) return refuse(device, 'no-partition')
  const { role } = part
  if (isNeverErased(family, role)) return refuse(device, 'never-written')
  if (!takesIn(family, device.mode, 'erase', role)) return refuse(device, 'wrong-mode')
  const operation = { kind: 'erase', partition, role } as const
  const erased = applied({ ...device, session: undefined }, effectOf(family, operation))
  return done(nature, erased, operation, { kind: 'done' })
}

/** The boot lock opened, where its switch is on, or closed, where all is as the family wants it. */
function lock(nature: Nature, device: DeviceModel, to: 'open' | 'closed'): Stepped {
  const { family } = nature
  if (!takesIn(family, device.mode, 'lock')) return refuse(device, 'wrong-mode')
  if (device.lock === to) return told(device, { kind: 'done' })
  const refused = to === 'closed' ? closingRefused(nature, device) : openingRefused(nature, device)
  if (refused !== undefined) return refuse(device, refused)
  const operation = { kind: 'lock', to, model: device.fused.model } as const
  const turned = applied({ ...device, lock: to, session: undefined }, effectOf(family, operation))
  const floors = to === 'closed' ? raised(family, turned, nature.catalogue, 'lock') : turned.floors
  const merging = to === 'closed' && device.merge === 'merging'
  const lost = merging && family.merge?.destroyedBy.includes('lock') === true
  const there = turned.data.form !== 'none'
  const data = lost && there ? ({ ...turned.data, form: 'unreadable' } as const) : turned.data
  return done(nature, { ...turned, floors, data }, operation, { kind: 'done' })
}

function openingRefused({ family }: Nature, device: DeviceModel) {
  if (family.lock.opens !== 'command') return 'not-allowed' as const
  return device.lockSwitch ? undefined : ('lock-switch' as const)
}

/** The other slot is tried at the next start, or this one again. */
function slot(nature: Nature, device: DeviceModel, to: 'a' | 'b'): Stepped {
  const { slots } = device
  if (!takesIn(nature.family, device.mode, 'slot') || slots === undefined)
    return refuse(device, 'wrong-mode')
  const operation = { kind: 'slot', slot: to } as const
  const tries = to === slots.runs ? undefined : to
  const told = applied(
    { ...device, slots: { ...slots, tries } },
    effectOf(nature.family, operation),
  )
  return done(nature, told, operation, { kind: 'done' })
}

/** A merge is waited for where it goes on, in the system; one that is only staged is taken back in the rescue. */
function merge(nature: Nature, device: DeviceModel, act: 'wait' | 'cancel'): Stepped {
  const { family } = nature
  if (isMute(family, device)) return told(device, { kind: 'silent' })
  const where = act === 'wait' ? runs(family, device) : isKind(family, device.mode, 'rescue')
  if (!where || !takesIn(family, device.mode, 'merge')) return refuse(device, 'wrong-mode')
  const asked = { kind: 'merge', do: 'cancel' } as const
  if (act === 'cancel' && device.merge === 'merging') return refuse(device, 'merging')
  if (act === 'cancel') return done(nature, cancelled(device), asked, { kind: 'done' })
  if (device.merge !== 'merging') return told(device, { kind: 'done' })
  const at = Math.max(device.at, device.mergeUntil ?? device.at + lastsOf(nature, 'merge'))
  const after: DeviceModel = { ...device, at, merge: 'none', mergeUntil: undefined }
  return told(after, { kind: 'done' })
}

/** Only a system that runs, or a rescue, can be asked for a reset; it restarts into itself after. */
function reset(nature: Nature, device: DeviceModel): Stepped {
  const { family } = nature
  const can = isKind(family, device.mode, 'system') || isKind(family, device.mode, 'rescue')
  if (!can) return refuse(device, 'wrong-mode')
  const wiped = applied(device, effectOf(family, { kind: 'reset' }))
  const reached = done(nature, wiped, { kind: 'reset' }, { kind: 'mode', mode: device.mode })
  return runs(family, device) ? keys(nature, reached.device, device.mode) : reached
}

/**
 * In the settings of a system that runs: the switch for its lock, which greyed stays as it is; the account that is on
 * it taken off, which one that a wiped device asks for is not.
 */
function inSettings(
  { family }: Nature,
  device: DeviceModel,
  input: Extract<TwinInput, { kind: 'lock-switch' | 'sign-out' }>,
): Stepped {
  const reached = runs(family, device) && device.outcome === 'normal'
  const switches = input.kind === 'lock-switch' && !isGreyed(family, device)
  const signsOut = input.kind === 'sign-out' && device.account === 'on'
  const after = {
    ...device,
    ...(switches ? { lockSwitch: input.on } : {}),
    ...(signsOut ? { account: 'none' as const } : {}),
  }
  return told(reached ? after : device, { kind: 'silent' })
}

/** The link permission is given in a system that runs; at the set-up page that means to go through it. */
function permitted({ family }: Nature, device: DeviceModel, given: boolean): DeviceModel {
  const open = device.outcome === 'normal' || device.outcome === 'set-up'
  if (!runs(family, device) || !open || device.account === 'asked') return device
  if (!given) return { ...device, permission: false }
  const setUpAt = device.outcome === 'set-up' ? device.at : device.setUpAt
  return { ...device, permission: true, outcome: 'normal', setUpAt }
}
