/**
 * Who works here. A role is a rank: whoever may do more may do all that those below may.
 */
export const ROLES = ['trainee', 'technician', 'lead'] as const
export type Role = (typeof ROLES)[number]

/**
 * What a route or an act may ask for: anybody at all, at least one of the roles, or the bench's own
 * process, which no person is.
 */
export const NEEDS = ['nobody', ...ROLES, 'agent'] as const
export type Need = (typeof NEEDS)[number]

/** True when `role` (undefined: nobody is signed in) is at least what is needed. */
export function reaches(role: Role | 'agent' | undefined, need: Need): boolean {
  const rank = role === undefined ? 0 : NEEDS.indexOf(role)
  return rank >= NEEDS.indexOf(need)
}
