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

export const modeSchema = z.enum(['off', 'normal', 'loader', 'rescue', 'transfer'])
export type Mode = z.infer<typeof modeSchema>

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
  'bootLock',
  'accountLock',
  'serial',
  'batteryPercent',
  'batteryHealth',
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
]
/** Facts of which the newest reading stands, whoever made it: they pass by themselves. */
export const PASSING_FACTS: readonly Fact[] = ['batteryPercent']
/** The least that the hardware accepts: it rises and never falls. */
export const FLOOR_FACTS: readonly Fact[] = ['floor']
/** Facts that no write changes; all others are read anew after one. */
export const UNWRITTEN_FACTS: readonly Fact[] = [...FIXED_FACTS, 'batteryHealth', 'accountLock']
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
  'floor',
  'bootLock',
]
