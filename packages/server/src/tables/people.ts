/** People: who they are, what they may do, how their PIN stands. */
import type { Role } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

export type PersonRow = {
  readonly id: string
  readonly name: string
  readonly role: Role
  readonly active: boolean
  readonly addedAt: Date
}

export type PinRow = PersonRow & {
  readonly pinHash: string
  readonly failures: number
  readonly waitUntil: Date | null
}

const COLUMNS = {
  id: 'id',
  name: 'name',
  role: 'role',
  active: 'active',
  addedAt: 'added_at',
} as const
const PIN_COLUMNS = {
  ...COLUMNS,
  pinHash: 'pin_hash',
  failures: 'failures',
  waitUntil: 'wait_until',
} as const

/** Everybody, by name. */
export async function listPeople(db: Database): Promise<PersonRow[]> {
  return (await db('people').select(COLUMNS).orderBy('name')) as PersonRow[]
}

/** One person, also one who has left. */
export async function readPerson(db: Database, id: string): Promise<PersonRow | undefined> {
  return (await db('people').select(COLUMNS).where({ id }).first()) as PersonRow | undefined
}

/**
 * A person with the PIN's hash and its failures, locked against a second try at the same time: tries
 * at one PIN run one after the other.
 */
export async function lockPin(trx: Transaction, id: string): Promise<PinRow | undefined> {
  return (await trx('people').select(PIN_COLUMNS).where({ id }).forUpdate().first()) as
    PinRow | undefined
}

/** Notes how a try at a PIN went; `waitUntil` is real time. */
export async function setFailures(
  trx: Transaction,
  id: string,
  failures: number,
  waitUntil: Date | null,
): Promise<void> {
  await trx('people').where({ id }).update({ failures, wait_until: waitUntil })
}

/** Adds somebody; false when the name is taken. */
export async function insertPerson(
  trx: Transaction,
  person: PersonRow & { readonly pinHash: string },
): Promise<boolean> {
  const made = await trx('people')
    .insert({
      id: person.id,
      name: person.name,
      role: person.role,
      pin_hash: person.pinHash,
      active: person.active,
      added_at: person.addedAt,
    })
    .onConflict('name')
    .ignore()
    .returning('id')
  return made.length === 1
}

/** Changes what is given; a new PIN forgets old failures. */
export async function updatePerson(
  trx: Transaction,
  id: string,
  change: { readonly role?: Role; readonly active?: boolean; readonly pinHash?: string },
): Promise<void> {
  const pin =
    change.pinHash === undefined ? {} : { pin_hash: change.pinHash, failures: 0, wait_until: null }
  const rest = {
    ...(change.role === undefined ? {} : { role: change.role }),
    ...(change.active === undefined ? {} : { active: change.active }),
  }
  await trx('people')
    .where({ id })
    .update({ ...rest, ...pin })
}

/** The ids of the leads who can sign in, locked, so that two leads cannot dismiss each other at once. */
export async function lockLeads(trx: Transaction): Promise<string[]> {
  const rows = (await trx('people')
    .select('id')
    .where({ role: 'lead', active: true })
    .forUpdate()) as { id: string }[]
  return rows.map((row) => row.id)
}
