/** The words for a device: roles of its parts, where readings come from, its modes, its facts. */
import { z } from 'zod'

export const ROLES_OF_PARTS = [
  'loader',
  'modem',
  'kernel',
  'rescue',
  'main',
  'support',
  'variant',
  'cache',
  'customer',
  'calib',
  'table',
] as const
export const partRoleSchema = z.enum(ROLES_OF_PARTS)
export type PartRole = z.infer<typeof partRoleSchema>

/** The two sets of parts of a family that keeps its system twice. */
export const slotSchema = z.enum(['a', 'b'])
export type Slot = z.infer<typeof slotSchema>

/**
 * Where a package lies that the device installs by itself: pushed over the cable and kept in its memory, on a
 * memory card, on its own storage.
 */
export const STORES = ['push', 'card', 'storage'] as const
export const storeSchema = z.enum(STORES)
export type Store = z.infer<typeof storeSchema>

/**
 * What is done to a device without a package: an update of its own waited for or taken back, its boot lock opened or
 * closed, a reset made by hand.
 */
export const MOVE_ACTS = ['wait', 'take-back', 'open', 'close', 'reset'] as const
export type MoveAct = (typeof MOVE_ACTS)[number]

/** What a device cannot do although its system runs. */
export const LIMITS = ['no-radio', 'no-sensors', 'no-updates'] as const
export const limitSchema = z.enum(LIMITS)
export type Limit = z.infer<typeof limitSchema>

/** Where readings come from, roughly from most to least trusted. */
export const SOURCES = [
  'link',
  'screen',
  'settings',
  'rescue',
  'label',
  'box',
  'earlier',
  'person',
] as const
export const sourceSchema = z.enum(SOURCES)
export type Source = z.infer<typeof sourceSchema>

/** What a mode is for, whatever its family calls it. */
export const MODE_KINDS = ['off', 'hang', 'loop', 'system', 'writing', 'rescue'] as const
export const modeKindSchema = z.enum(MODE_KINDS)
export type ModeKind = z.infer<typeof modeKindSchema>

/** Longer than any family's id of a mode. */
const MODE_MOST = 24
/** A mode by the id its family gives it: nothing but a family knows one by name. */
export const modeSchema = z
  .string()
  .max(MODE_MOST)
  .regex(/^[a-z][a-z0-9-]*$/, 'small letters, digits and dashes')
export type Mode = z.infer<typeof modeSchema>

/** What may be asked of a device over its link, mode by mode. */
export const TAKES = [
  'write',
  'digest',
  'blocks',
  'read',
  'table',
  'tally',
  'erase',
  'lock',
  'slot',
  'install',
  'merge',
  'permit',
] as const
export const takesSchema = z.enum(TAKES)
export type Takes = z.infer<typeof takesSchema>

/** Facts that are read of a device. */
export const FACTS = [
  'model',
  'board',
  'chipset',
  'storageGb',
  'region',
  'carrier',
  'build',
  'release',
  'patchDate',
  'loaderVersion',
  'radioVersion',
  'floor',
  'floorLoader',
  'floorModem',
  'floorMain',
  'track',
  'slot',
  'merge',
  'bootLock',
  'accountLock',
  'serial',
  'deviceId',
  'batteryPercent',
  'batteryHealth',
  'lockSwitch',
  'screenLock',
  'storageHealth',
  'freeMiB',
] as const
export const factSchema = z.enum(FACTS)
export type Fact = z.infer<typeof factSchema>

/** Facts that are so as long as the board is: they go by the weight of their sources. */
export const FIXED_FACTS: readonly Fact[] = [
  'model',
  'board',
  'chipset',
  'storageGb',
  'region',
  'carrier',
  'serial',
  'deviceId',
]
/** Facts of which the newest reading stands, whoever made it: they pass by themselves. */
export const PASSING_FACTS: readonly Fact[] = [
  'batteryPercent',
  'merge',
  'lockSwitch',
  'screenLock',
  'storageHealth',
  'freeMiB',
]
/** Facts that are one of a few words. */
export const WORD_FACTS = {
  bootLock: ['closed', 'open'],
  merge: ['none', 'staged', 'merging'],
  slot: ['a', 'b'],
  /** The page of its settings that lets its boot lock be opened; greyed: it cannot be turned there, or not yet. */
  lockSwitch: ['on', 'off', 'greyed'],
  screenLock: ['on', 'off'],
  storageHealth: ['good', 'worn', 'failing'],
  /** Whether an account is on it that it asks for after a reset. */
  accountLock: ['absent', 'present'],
  /** What whoever looked at the cell, or the device itself, says of it. */
  batteryHealth: ['sound', 'aged', 'damaged', 'swollen', 'hot', 'wet', 'dented'],
} as const satisfies Readonly<Partial<Record<Fact, readonly string[]>>>
/** The least that the hardware accepts: it rises and never falls. */
export const FLOOR_FACTS: readonly Fact[] = ['floor', 'floorLoader', 'floorModem', 'floorMain']
/** Facts that only a package of service software asks for: its finding leads there. */
export const SERVICE_FACTS: readonly Fact[] = ['deviceId']
/** Facts that no write changes; all others are read anew after one. */
export const UNWRITTEN_FACTS: readonly Fact[] = [
  ...FIXED_FACTS,
  'batteryHealth',
  'accountLock',
  'storageHealth',
]
/**
 * Facts of what the customer's data were last used by: writing alone does not move them, a start does. A
 * device whose system is half written no longer says them, and its data are what they were.
 */
export const STARTED_FACTS: readonly Fact[] = ['release', 'patchDate']
/** Facts whose mistake can kill: nothing is judged on a weak source's word for them. */
export const LETHAL_FACTS: readonly Fact[] = [
  'model',
  'board',
  'chipset',
  'storageGb',
  ...FLOOR_FACTS,
  'bootLock',
]
