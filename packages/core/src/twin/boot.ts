/**
 * The twin starting: by a command, by keys; into a mode, or into its system by the family's start rules.
 * Reads a device and where it is to go; gives the device after it.
 */
import { marksBy } from '../effect/effect.ts'
import { answersIn, isKind, modeOfKind } from '../family/modes.ts'
import { isFrom } from '../family/builds.ts'
import type { Family } from '../family/profile.ts'
import { isTrackBack } from '../family/profile.ts'
import type { Mode } from '../terms/device.ts'
import { raised } from './applied.ts'
import { withoutMemory } from './memory.ts'
import { imageOn, loaderVersionOn, partIn } from './parts.ts'
import type { Start } from './start.ts'
import { awaitsSetUp, startOf } from './start.ts'
import { served } from './permitting.ts'
import type { DeviceModel, Slots } from './state.ts'
import type { Nature, Stepped } from './stepped.ts'
import { done, lastsOf, refuse, runs, switchedOff, told, withoutPower } from './stepped.ts'

/** A restart over the link; a running system does it for whoever has the link permission. */
export function restart(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (!answersIn(nature.family, device.mode)) return told(device, { kind: 'silent' })
  if (runs(nature.family, device) && !device.permission) return refuse(device, 'no-permission')
  return boot(nature, left(device), to)
}

/** Keys held, or a line of a menu taken: the mode they lead to. */
export function keys(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (isKind(nature.family, to, 'off')) return switchedOff(nature, device)
  return device.battery > 0 ? boot(nature, left(device), to) : told(device, { kind: 'silent' })
}

/** Leaving a mode: what lay in its memory is gone, and what waited for a hand waits in vain. */
const left = (device: DeviceModel): DeviceModel => ({
  ...withoutMemory(device),
  session: undefined,
})

/** Starting up: what is dead stays so, a start to the system follows the start rules. */
function boot(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  const { family, catalogue } = nature
  const start = startOf(family, device, catalogue)
  if (start.outcome === 'dead')
    return told(withoutPower(family, { ...device, outcome: 'dead' }), { kind: 'silent' })
  const awake = { ...device, loaderVersion: loaderVersionOn(device, catalogue) }
  if (!isKind(family, to, 'system'))
    return done(nature, { ...awake, mode: to }, { kind: 'restart' }, { kind: 'mode', mode: to })
  return startSystem(nature, awake, start)
}

function startSystem(nature: Nature, device: DeviceModel, start: Start): Stepped {
  const { family } = nature
  const after = {
    ...device,
    ...slotsAfter(device, start),
    merge: mergeAfter(device, start),
    outcome: start.outcome,
    limits: start.limits,
    shows: start.says,
  }
  const returns = device.returns + Math.max(1, start.bad)
  switch (start.outcome) {
    case 'normal':
    case 'set-up':
      return startedUp(nature, after, start)
    case 'asks-reset': {
      const asking = {
        ...after,
        mode: modeOfKind(family, 'system'),
        permission: false,
        returns: start.bad,
      }
      return done(nature, asking, { kind: 'restart' }, { kind: 'silent' })
    }
    case 'stays': {
      const mode = start.stays ?? modeOfKind(family, 'off')
      const stays = { ...after, mode, returns: start.bad }
      return done(nature, stays, { kind: 'restart' }, { kind: 'mode', mode })
    }
    case 'loop':
    case 'dead':
      return done(
        nature,
        looping(family, { ...after, returns }),
        { kind: 'restart' },
        { kind: 'silent' },
      )
  }
}

/** Restarting over and over: a mode of its own where the family has one, else it answers as one that is off. */
function looping(family: Family, device: DeviceModel): DeviceModel {
  const loop = family.modes.find(({ kind }) => kind === 'loop')
  return { ...withoutPower(family, device), ...(loop === undefined ? {} : { mode: loop.id }) }
}

/** A slot that was tried has run or is left; what it came to is put down when it runs. */
function slotsAfter(
  { slots }: DeviceModel,
  { slot, outcome }: Start,
): { readonly slots: Slots | undefined } {
  if (slots === undefined || slot === undefined) return { slots }
  const good = outcome === 'normal' || outcome === 'set-up'
  return {
    slots: {
      runs: slot,
      tries: undefined,
      good: good ? [...new Set([...slots.good, slot])].sort() : slots.good,
    },
  }
}

/** What was staged in the slot that was tried merges once it runs; fallen back from, nothing of it does. */
function mergeAfter({ slots, merge }: DeviceModel, { slot, outcome }: Start): DeviceModel['merge'] {
  const tried = slots?.tries
  if (merge !== 'staged' || tried === undefined) return merge
  if (slot !== tried) return 'none'
  return outcome === 'normal' || outcome === 'set-up' ? 'merging' : merge
}

/** The system runs: floors rise, the data are of its build now, marks are set. */
function startedUp(nature: Nature, device: DeviceModel, start: Start): Stepped {
  const { family, catalogue } = nature
  const { build } = start
  /* As long as nothing was written it starts as it always did: no first start, and no floor rises. */
  const first = device.fresh
  const mode = modeOfKind(family, 'system')
  const floors = first ? floorsAfter(nature, device) : device.floors
  const marked = runsModified(nature, device) ? marksBy(family, 'modified-start') : []
  const started: DeviceModel = {
    ...device,
    mode,
    floors,
    fresh: false,
    key: keyAfter(family, device, build),
    mergeUntil: device.merge === 'merging' ? device.at + lastsOf(nature, 'merge') : undefined,
    returns: start.bad,
    marks: [...new Set([...device.marks, ...marked])],
    data: build === undefined ? device.data : dataAfter(family, device, build),
  }
  const serves = build?.service === true
  const { floors: before, data } = device
  const after = serves ? { ...served(family, started), floors: before, data } : started
  const wiped = awaitsSetUp(device)
  const operation = first
    ? ({ kind: 'first-start', wiped } as const)
    : ({ kind: 'restart' } as const)
  const slow = { ...after, at: after.at + start.warned * 1000 }
  return done({ ...nature, catalogue }, slow, operation, { kind: 'mode', mode })
}

/** Written over the cable, some builds ask for a key at their first start, and wait for it. */
function keyAfter(family: Family, { key }: DeviceModel, build: Start['build']): DeviceModel['key'] {
  if (key !== 'due' || build === undefined || family.goOn === undefined) return key
  return isFrom(family, build.build, family.goOn.from) ? 'asked' : 'none'
}

function floorsAfter({ family, catalogue }: Nature, device: DeviceModel): DeviceModel['floors'] {
  const first = raised(family, device, catalogue, 'first-start')
  return raised(family, { ...device, floors: first }, catalogue, 'good')
}

/** Some part that the system starts from is not the maker's. */
const runsModified = ({ family, catalogue }: Nature, device: DeviceModel): boolean =>
  family.signedSet.some((role) => {
    const part = partIn(device, role)
    return part !== undefined && imageOn(part, catalogue)?.modified === true
  })

/** Data that a build uses are of that build; what went back to before them opens them no more. */
function dataAfter(
  family: Family,
  { data }: DeviceModel,
  build: NonNullable<Start['build']>,
): DeviceModel['data'] {
  const { hangOn } = family.dataKeys
  const lost =
    (hangOn.includes('release') && build.release < data.release) ||
    (hangOn.includes('patchDate') && build.patchDate < data.patchDate) ||
    (hangOn.includes('track') && isTrackBack(family, data.track, build.track))
  const { release, patchDate, track } = build
  if (data.form === 'none') return { ...data, release, patchDate, track }
  return lost ? { ...data, form: 'unreadable' } : { ...data, release, patchDate, track }
}
