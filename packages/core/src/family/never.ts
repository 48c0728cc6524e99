/**
 * What is a device's own and comes from nowhere again: its calibration with its identity, and the table of its storage, of which
 * no image is ever written. No family may have them written or erased, whatever its file says; it may name more. Reads a family
 * and a role; gives whether.
 */
import type { PartRole } from '../terms/device.ts'
import type { Family } from './profile.ts'

/** Roles that nothing here ever writes, erases or moves. */
export const OWN_ROLES: readonly PartRole[] = ['calib', 'table']

export const isNeverWritten = ({ never }: Pick<Family, 'never'>, role: PartRole): boolean =>
  OWN_ROLES.includes(role) || never.includes(role)

/** What any reset takes of the customer's may be erased, though nothing is written there. */
export const isNeverErased = (
  { never, wipe }: Pick<Family, 'never' | 'wipe'>,
  role: PartRole,
): boolean => OWN_ROLES.includes(role) || (never.includes(role) && !wipe.includes(role))
