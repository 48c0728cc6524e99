/** Deciding the house rules: a lead's act, with a reason, on what the lead saw. */
import type { BodyOf, Contract, Face, HouseShown } from '@plain-slate/api'
import type { HouseRules, Result } from '@plain-slate/core'
import { HOUSE_QUESTIONS, USUAL_HOUSE, canonical, ok, refuse } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { enter } from '../book/append.ts'
import type { Database } from '../tables/database.ts'
import { insertHouse, listHouse, readHouse } from '../tables/house.ts'
import { tell } from '../tables/news.ts'

/** Decisions that are shown; older ones stand in the book. */
const SHOWN_MOST = 20

/** The rules and their history. */
export async function showHouse(db: Database): Promise<HouseShown> {
  const { version, rules } = await readHouse(db)
  const rows = await listHouse(db, SHOWN_MOST + 1)
  return {
    version,
    rules,
    history: rows.slice(0, SHOWN_MOST).map(({ rules: now, ...row }, index) => ({
      ...row,
      changed: [...changedIn(rows[index + 1]?.rules ?? USUAL_HOUSE, now)],
    })),
  }
}

/** Settings that differ, by name. */
const changedIn = (before: HouseRules, now: HouseRules): readonly (keyof HouseRules)[] =>
  HOUSE_QUESTIONS.filter((name) => canonical(before[name]) !== canonical(now[name]))

export async function changeHouse(
  workshop: Workshop,
  { version, rules, reason }: BodyOf<Contract['houseChange']>,
  actor: Face | undefined,
): Promise<Result<HouseShown, Refusal>> {
  const by = actor?.id ?? null
  const refused = await workshop.db.transaction(async (trx): Promise<Refusal | undefined> => {
    const before = await readHouse(trx)
    const changed = changedIn(before.rules, rules)
    if (changed.length === 0) return undefined
    const at = new Date(await workshop.clock.now())
    if (!(await insertHouse(trx, version, { rules, by, at, reason })))
      return { code: 'house.moved' }
    await enter(workshop, trx, {
      by,
      act: 'house.changed',
      facts: {
        reason,
        from: Object.fromEntries(changed.map((name) => [name, before.rules[name]])),
        to: Object.fromEntries(changed.map((name) => [name, rules[name]])),
      },
    })
    await tell(trx, 'shop', 'house', version + 1)
    return undefined
  })
  return refused === undefined ? ok(await showHouse(workshop.db)) : refuse(refused)
}
