/**
 * What a simulated device says and what a loss of power leaves: the twin's outputs as answers of the
 * link, refusals in words, torn flash.
 */
import type {
  DeviceModel,
  DeviceRefusal,
  Family,
  LinkAnswer,
  Run,
  TwinOutput,
} from '@plain-slate/core'
import { BLOCK_BYTES, arraySectors, lay, modeOfKind, saidBy } from '@plain-slate/core'
import type { DeviceFile } from './device-file.ts'
import type { Flash } from './flash.ts'

type AnswerBody = LinkAnswer extends infer One
  ? One extends LinkAnswer
    ? Omit<One, 'id'>
    : never
  : never

export type Handled = {
  readonly answer: AnswerBody
  readonly payload: Uint8Array
  /** Model time at which the answer may be given. */
  readonly doneAt: number
  /** The stream ends: after the answer (a restart), or instead of it (a cut). */
  readonly ends: 'no' | 'after' | 'instead'
}

/** No payload. */
export const NO_BYTES = new Uint8Array()

/** A piece given up: its whole range is suspect, and the device is off, as if its power had gone. */
export function brokenOff(family: Family, model: DeviceModel): DeviceModel {
  const { session } = model
  const part = session === undefined ? undefined : model.parts[session.partition]
  if (session === undefined || part === undefined) return model
  const from = Math.floor(session.offset / BLOCK_BYTES)
  const to = Math.ceil((session.offset + session.size) / BLOCK_BYTES)
  const torn: Run = { from, to, kind: 'torn' }
  const parts = { ...model.parts, [session.partition]: { ...part, map: lay(part.map, torn) } }
  return { ...model, parts, session: undefined, mode: modeOfKind(family, 'off') }
}

/** Half-written flash reads as neither: what came first is there, the rest is the old with bits fallen. */
export function tornBytes(old: Uint8Array, came: Uint8Array): Uint8Array {
  const torn = Uint8Array.from(old, (byte) => byte ^ 0x5a)
  torn.set(came)
  return torn
}

/** Why a device says no, in words. */
export const REFUSAL_TEXTS: Readonly<Record<DeviceRefusal, string>> = {
  'wrong-mode': 'This is not possible in the mode the device is in.',
  'old-epoch': 'A newer owner of this run has spoken to the device.',
  'no-session': 'No piece is open.',
  'other-session': 'Another piece is open.',
  'bad-offset': 'These bytes do not follow on the ones that are kept.',
  'bad-checksum': 'The bytes do not have the checksum that was announced.',
  'bad-digest': 'The piece does not have the digest that was announced; nothing of it counts.',
  'no-partition': 'There is no such partition.',
  'too-large': 'This reaches past the end of the partition.',
  'never-written': 'This partition is never written.',
  floor: 'The image is of a generation below the floor of this device.',
  'not-signed': 'The maker has signed no such image for this part.',
  'not-granted': 'The maker has granted no such permit.',
  'no-permission': 'The link permission is not given in the settings.',
  'battery-low': 'There is not enough charge.',
  'not-allowed': 'Nobody but its maker opens this lock.',
  'lock-switch': 'The switch that lets its lock be opened is off.',
  'other-variant': 'A part is of another variant than this device was built for.',
  'no-store': 'No such place for files is open in this mode.',
  'no-file': 'There is no such file.',
  'no-room': 'The file is larger than this place takes.',
  'not-whole': 'The file is no package, or not all of it.',
  'other-target': 'The package is for another model or board.',
  'other-base': 'The package goes on another build than the one that is here.',
  modified: 'The package goes on an untouched system only.',
  merging: 'An update is being merged.',
  'no-storage': 'No storage.',
  'own-rescue': 'Not one of the packages that this rescue takes.',
  'other-device': 'The permit is for another device.',
  spent: 'The permit was used up.',
  'no-permit': 'Its maker permits no service software on it.',
  busy: 'It waits for a hand.',
  'unknown-verb': 'This device does not know what was asked.',
}

/** A twin's output as an answer that may be given at `doneAt`; the stream of one that says nothing ends. */
export function said(output: TwinOutput, doneAt: number): Handled {
  const plain = { payload: NO_BYTES, doneAt } as const
  const body = saidBy(output)
  if (body === undefined)
    return { ...plain, answer: { answer: 'kept', at: doneAt, got: 0 }, ends: 'instead' }
  const worded = body.answer === 'refused' ? { ...body, text: REFUSAL_TEXTS[body.code] } : body
  return { ...plain, answer: { ...worded, at: doneAt }, ends: 'no' }
}

/** The head of the disk and its tail, where the two copies of the partition table lie. */
export function tableOf({ sectorBytes, diskBytes }: DeviceFile, flash: Flash, at: number): Handled {
  const copy = (1 + arraySectors(sectorBytes)) * sectorBytes
  const ranges = [
    { at: 0, length: copy + sectorBytes },
    { at: diskBytes - copy, length: copy },
  ]
  const payload = Buffer.concat(ranges.map((range) => flash.read(range.at, range.length)))
  const answer = { answer: 'table', at, sectorBytes, diskBytes, ranges } as const
  return { answer, payload, doneAt: at, ends: 'no' }
}
