/** Adding people, changing what they may do, letting them go; always a lead's act and an entry. */
import { randomUUID } from 'node:crypto'
import type { BodyOf, Contract, Person } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Transaction } from '../tables/database.ts'
import { insertPerson, lockLeads, readPerson, updatePerson } from '../tables/people.ts'
import { tell } from '../tables/news.ts'
import { dropSessionsOf } from '../tables/sessions.ts'
import { dropTokensOf } from '../tables/shell-tokens.ts'
import type { Face } from '@plain-slate/api'
import { personOf } from './face.ts'
import { hashPin } from './pin.ts'

/** Adds somebody under a name nobody else has. */
export async function addPerson(
  workshop: Workshop,
  draft: BodyOf<Contract['personAdd']>,
  actor: Face | undefined,
): Promise<Result<Person, Refusal>> {
  const pinHash = await hashPin(draft.pin)
  const addedAt = new Date(await workshop.clock.now())
  const row = { id: randomUUID(), name: draft.name, role: draft.role, active: true, addedAt }
  return workshop.db.transaction(async (trx) => {
    if (!(await insertPerson(trx, { ...row, pinHash })))
      return refuse({ code: 'person.name-taken' as const, facts: { name: draft.name } })
    const facts = { person: row.id, role: row.role }
    await enter(workshop, trx, { by: actor?.id ?? null, act: 'person.added', facts })
    await tell(trx, 'people', row.id, 1)
    return ok(personOf(row))
  })
}

/** Changes role, PIN or presence. The last lead stays one: nobody could mend it afterwards. */
export async function changePerson(
  workshop: Workshop,
  id: string,
  change: BodyOf<Contract['personChange']>,
  actor: Face | undefined,
): Promise<Result<Person, Refusal>> {
  const pinHash = change.pin === undefined ? undefined : await hashPin(change.pin)
  return workshop.db.transaction(async (trx) => {
    if ((await readPerson(trx, id)) === undefined)
      return refuse({ code: 'person.unknown' as const })
    if (await leavesNoLead(trx, id, change)) return refuse({ code: 'person.last-lead' as const })
    const { role, active } = change
    await updatePerson(trx, id, {
      ...(role === undefined ? {} : { role }),
      ...(active === undefined ? {} : { active }),
      ...(pinHash === undefined ? {} : { pinHash }),
    })
    if (active === false || pinHash !== undefined) {
      await dropSessionsOf(trx, id)
      await dropTokensOf(trx, id)
    }
    const facts = { person: id, role, active, pin: pinHash !== undefined }
    await enter(workshop, trx, {
      by: actor?.id ?? null,
      act: 'person.changed',
      facts: defined(facts),
    })
    await tell(trx, 'people', id, 1)
    await tell(trx, 'session', id, 1)
    const after = await readPerson(trx, id)
    return after === undefined ? refuse({ code: 'person.unknown' as const }) : ok(personOf(after))
  })
}

async function leavesNoLead(
  trx: Transaction,
  id: string,
  change: { readonly role?: string; readonly active?: boolean },
): Promise<boolean> {
  const stays = change.active !== false && (change.role ?? 'lead') === 'lead'
  if (stays) return false
  const leads = await lockLeads(trx)
  return leads.length === 1 && leads[0] === id
}

function defined(
  facts: Readonly<Record<string, string | boolean | undefined>>,
): Record<string, string | boolean> {
  const given = Object.entries(facts).filter(([, value]) => value !== undefined)
  return Object.fromEntries(given) as Record<string, string | boolean>
}
