/**
 * Refused calls: the first of an hour is entered in the book at once, the others are counted, and their
 * number is entered when the hour is over. Somebody who tries a door a thousand times fills no book.
 */
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import { countRefused, dropTold, takeUntold } from '../tables/refusals.ts'

/** A call that was refused to somebody who is signed in; `what` is the route. */
export async function refusedTo(workshop: Workshop, person: string, what: string): Promise<void> {
  await workshop.db.transaction(async (trx) => {
    if ((await countRefused(trx, { person, what })) > 1) return
    await enter(workshop, trx, { by: person, act: 'act.refused', facts: { route: what } })
  })
}

/** Enters the counts of hours that are over; answers how many entries that made. */
export async function tellRefusals(workshop: Workshop): Promise<{ entered: number }> {
  const entered = await workshop.db.transaction(async (trx) => {
    const untold = await takeUntold(trx)
    for (const { person, what, times } of untold) {
      const facts = { route: what, times }
      await enter(workshop, trx, { by: person, act: 'act.refused', facts })
    }
    return untold.length
  })
  await dropTold(workshop.db)
  return { entered }
}
