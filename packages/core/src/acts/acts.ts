/**
 * Who may do what. Reads an act, the person who would do it and, where there is one, the second
 * person who stands by; gives allowed, refused with a reason, or "needs a second person". Leaves
 * out how a person is known (PIN, session): that is the server's.
 */
import { reaches } from '../terms/people.ts'
import type { Role } from '../terms/people.ts'

/** An act: the least role, and what the second person must be if one is needed. */
type ActRule = { readonly least: Role; readonly second?: Role }

const RULES = {
  'slip.read': { least: 'trainee' },
  'slip.open': { least: 'trainee' },
  'slip.note': { least: 'trainee' },
  'slip.change': { least: 'technician' },
  'slip.state': { least: 'technician' },
  'slip.line': { least: 'trainee' },
  'slip.plan': { least: 'technician' },
  'book.read': { least: 'trainee' },
  'book.export': { least: 'technician' },
  'shelf.read': { least: 'trainee' },
  'shelf.add': { least: 'technician' },
  'bench.read': { least: 'trainee' },
  'bench.hands': { least: 'trainee' },
  'bench.cables': { least: 'technician' },
  'bench.lay': { least: 'lead' },
  'run.prepare': { least: 'trainee' },
  'run.start': { least: 'technician' },
  'run.hands': { least: 'trainee' },
  'person.read': { least: 'trainee' },
  'person.change': { least: 'lead' },
  'token.make': { least: 'trainee' },
  'house.change': { least: 'lead' },
  'family.take': { least: 'lead' },
  'rule.overrule': { least: 'technician' },
  'rule.overrule.lead': { least: 'lead' },
  'rule.overrule.two': { least: 'technician', second: 'lead' },
  'text.withdraw': { least: 'technician', second: 'lead' },
} as const satisfies Record<string, ActRule>

export type Act = keyof typeof RULES
export const ACTS = Object.keys(RULES) as readonly Act[]

/** The least role that may do an act: what the routes of the contract that do it need. */
export const leastOf = (act: Act): Role => RULES[act].least

/** Somebody at the bench, as far as a decision needs them. */
export type Actor = { readonly id: string; readonly role: Role }

export type Decision =
  | { readonly kind: 'allowed' }
  | { readonly kind: 'refused'; readonly why: 'role'; readonly needs: Role }
  | { readonly kind: 'refused'; readonly why: 'second-is-same' }
  | { readonly kind: 'needs-second'; readonly role: Role }

/**
 * Decides on an act. With two people, one of them must be of the second's role and the other of the
 * least role; they must be two. The order in which they stand does not matter.
 */
export function authorise(actor: Actor, act: Act, second?: Actor): Decision {
  const rule: ActRule = RULES[act]
  if (!reaches(actor.role, rule.least)) return { kind: 'refused', why: 'role', needs: rule.least }
  if (rule.second === undefined) return { kind: 'allowed' }
  if (second === undefined) return { kind: 'needs-second', role: secondFor(actor, rule) }
  if (second.id === actor.id) return { kind: 'refused', why: 'second-is-same' }
  const needed = secondFor(actor, rule)
  if (!reaches(second.role, needed)) return { kind: 'refused', why: 'role', needs: needed }
  return { kind: 'allowed' }
}

/** Whoever is not of the second's role needs one who is; who is needs anyone fit for the act. */
function secondFor(actor: Actor, rule: ActRule): Role {
  if (rule.second === undefined || reaches(actor.role, rule.second)) return rule.least
  return rule.second
}
