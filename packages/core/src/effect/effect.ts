/**
 * What an operation on a device does, declared once: what it writes and erases, what it makes of the
 * customer's data, of the link permission and of the floors, what it drains, which pace it follows. Routes
 * cost it, plans fold it, the twin executes it. Reads a family and an operation; gives its effect as data.
 * Bytes are those of the real device (model bytes).
 */
import type { Family, PaceKey } from '../family/profile.ts'
import type { DataChange, Rise } from '../family/rules.ts'
import type { PartRole, Slot, Store } from '../terms/device.ts'

export type Operation =
  /** `plugged`: its cable stays in meanwhile. */
  | { readonly kind: 'hands'; readonly seconds: number; readonly plugged?: true }
  | {
      readonly kind: 'write'
      readonly partition: string
      readonly role: PartRole
      readonly bytes: number
    }
  | { readonly kind: 'erase'; readonly partition: string; readonly role: PartRole }
  | { readonly kind: 'digest'; readonly bytes: number }
  | { readonly kind: 'restart' }
  | { readonly kind: 'first-start'; readonly wiped: boolean }
  /** A reset that the system or the rescue makes, asked by hand: a wipe of everything of the customer's. */
  | { readonly kind: 'reset' }
  | { readonly kind: 'lock'; readonly to: 'open' | 'closed'; readonly model: string }
  /** Which slot is to be tried at the next start. */
  | { readonly kind: 'slot'; readonly slot: Slot }
  /** What its maker permits it. */
  | { readonly kind: 'permit' }
  /** A file to a store of the device; what is pushed lies in its memory. */
  | { readonly kind: 'copy' | 'push'; readonly bytes: number }
  /** A package looked over block by block before it is written. */
  | { readonly kind: 'check' }
  | {
      readonly kind: 'install'
      readonly store: Store
      readonly bytes: number
      /** Whether it is pushed first, and whether it is looked over block by block then. */
      readonly pushed: boolean
      readonly slowly: boolean
      /** The slot that is written, where the family has any. */
      readonly slot: Slot | undefined
    }
  /** An update of its own: waited for until it is merged, or taken back while it is only prepared. */
  | { readonly kind: 'merge'; readonly do: 'wait' | 'cancel' }
  | { readonly kind: 'ask' }

export type Drain = keyof Family['drainPerMinute'] | 'none'

/** A pace of the family's, for so many bytes where it goes by them. */
export type Paced = { readonly key: PaceKey; readonly bytes: number }

export type Effect = {
  /** How long it lasts: a pace of the family's, with others that come before it; or plain seconds. */
  readonly pace: (Paced & { readonly first?: readonly Paced[] }) | { readonly seconds: number }
  readonly drain: Drain
  /** The partition it writes bytes to. */
  readonly writes: string | undefined
  /** Stores whose files are gone after it. */
  readonly empties: readonly Store[]
  /** The partitions it erases: nothing of them can be read after. */
  readonly erases: readonly string[]
  /** What it makes of the customer's data. */
  readonly data: DataChange
  /** Whether an account that was on it asks for its sign-in after it. */
  readonly asksAccount: boolean
  /** Whether the link permission is gone after it. */
  readonly clearsPermission: boolean
  /** The moment it is, at which a floor rises where the family says so. */
  readonly moment: Rise | undefined
  /** Marks of the family that it sets. */
  readonly marks: readonly string[]
  readonly hands: boolean
  readonly cable: boolean
  readonly restarts: boolean
}

const NOTHING: Effect = {
  pace: { seconds: 0 },
  drain: 'none',
  writes: undefined,
  empties: [],
  erases: [],
  data: 'keeps',
  asksAccount: false,
  clearsPermission: false,
  moment: undefined,
  marks: [],
  hands: false,
  cable: true,
  restarts: false,
}
/** Reading facts over the link takes about this long on any family. */
const ASK_SECONDS = 2
/** A word to the device that it keeps: which slot, and the like. */
const TOLD_SECONDS = 1

/** The effect of an operation on this family. */
export function effectOf(family: Family, operation: Operation): Effect {
  switch (operation.kind) {
    case 'hands':
      return {
        ...NOTHING,
        pace: { seconds: operation.seconds },
        hands: true,
        cable: operation.plugged === true,
      }
    case 'write': {
      const pace = { key: 'write', bytes: operation.bytes } as const
      const writes = operation.partition
      return { ...NOTHING, pace, drain: 'writing', writes, moment: 'write' }
    }
    case 'erase': {
      const pace = { key: 'erase', bytes: 0 } as const
      const erases = [operation.partition]
      const empties = storesOn(family, erases)
      const plain = { ...NOTHING, pace, drain: 'writing', erases, empties } as const
      return operation.role === 'customer' ? { ...plain, ...wiped(family) } : plain
    }
    case 'digest':
      return { ...NOTHING, pace: { key: 'digest', bytes: operation.bytes }, drain: 'idle' }
    case 'restart':
      return { ...NOTHING, pace: { key: 'restart', bytes: 0 }, drain: 'idle', restarts: true }
    case 'first-start': {
      const key = operation.wiped ? 'first-start-wiped' : 'first-start'
      const moment = 'first-start'
      return { ...NOTHING, pace: { key, bytes: 0 }, drain: 'first-start', restarts: true, moment }
    }
    case 'reset': {
      const pace = { key: 'erase', bytes: 0 } as const
      const erases = wipedPartitions(family)
      return { ...NOTHING, pace, drain: 'writing', erases, ...wiped(family), hands: true }
    }
    case 'lock':
      return lockEffect(family, operation.to, operation.model)
    case 'slot': {
      const clearsPermission = family.permission.clearedBy.includes('slot')
      return { ...NOTHING, pace: { seconds: TOLD_SECONDS }, drain: 'idle', clearsPermission }
    }
    case 'permit':
      return { ...NOTHING, pace: { seconds: TOLD_SECONDS }, drain: 'idle' }
    case 'copy':
    case 'push': {
      const pace = { key: operation.kind, bytes: operation.bytes }
      return { ...NOTHING, pace, drain: 'writing' }
    }
    case 'check':
      return { ...NOTHING, pace: { key: 'check', bytes: 0 }, drain: 'idle' }
    case 'install':
      return installEffect(family, operation)
    case 'merge':
      return operation.do === 'wait'
        ? { ...NOTHING, pace: { key: 'merge', bytes: 0 } }
        : { ...NOTHING, pace: { seconds: TOLD_SECONDS }, drain: 'idle' }
    case 'ask':
      return { ...NOTHING, pace: { seconds: ASK_SECONDS }, drain: 'idle' }
  }
}

/** It writes by itself; of a family with slots the other one, which is tried at the next start. */
function installEffect(
  family: Family,
  { bytes, pushed, slowly, slot }: Extract<Operation, { kind: 'install' }>,
): Effect {
  const first: readonly Paced[] = [
    ...(pushed ? [{ key: 'push', bytes } as const] : []),
    ...(slowly ? [{ key: 'check', bytes: 0 } as const] : []),
  ]
  const pace = { key: 'install', bytes, first } as const
  const clearsPermission = slot !== undefined && family.permission.clearedBy.includes('slot')
  return { ...NOTHING, pace, drain: 'writing', clearsPermission, cable: false }
}

/** Stores that lie on partitions which are erased. */
const storesOn = ({ stores }: Family, erased: readonly string[]): readonly Store[] =>
  stores.flatMap(({ id, partition }) =>
    partition !== undefined && erased.includes(partition) ? [id] : [],
  )

/** What goes with the customer's partition, whoever erases it. */
const wiped = (family: Family) => ({
  empties: storesOn(family, wipedPartitions(family)),
  data: 'wipes' as const,
  asksAccount: family.account.asksAfterReset,
  clearsPermission: family.permission.clearedBy.includes('wipe'),
})

/** Partitions that a wipe erases. */
export const wipedPartitions = (family: Family): readonly string[] =>
  family.partitions.filter(({ role }) => family.wipe.includes(role)).map(({ name }) => name)

/** What closing or opening the lock does to the customer's data on a model. */
export function lockChange(family: Family, to: 'open' | 'closed', model: string): DataChange {
  if (family.lock.opens !== 'command') return 'keeps'
  const { opening, closing } = family.lock
  if (to === 'open') return opening
  return closing.find(({ models }) => models?.includes(model) !== false)?.data ?? 'keeps'
}

function lockEffect(family: Family, to: 'open' | 'closed', model: string): Effect {
  const data = lockChange(family, to, model)
  const plain = { ...NOTHING, pace: { key: 'lock', bytes: 0 } as const, drain: 'idle' as const }
  const marks = to === 'open' ? marksBy(family, 'opening') : []
  const moment = to === 'closed' ? ('lock' as const) : undefined
  if (data !== 'wipes') return { ...plain, data, marks, moment }
  return { ...plain, erases: wipedPartitions(family), ...wiped(family), marks, moment }
}

/** Ids of the marks that something sets. */
export const marksBy = (
  { marks }: Family,
  by: Family['marks'][number]['setBy'][number],
): readonly string[] => marks.filter(({ setBy }) => setBy.includes(by)).map(({ id }) => id)

/** Whether a floor of the family rises at the moment that an effect is. */
export const raisesFloor = ({ floors }: Family, { moment }: Effect): boolean =>
  moment !== undefined && floors.rules.some(({ rises }) => rises.includes(moment))
