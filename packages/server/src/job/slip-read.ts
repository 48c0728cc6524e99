/** What is read for a slip's job, part by part, each with the marks that it rests on. */
import type { Concerned } from '../shelf/shelf.ts'
import { namedOnShelf, shelfFor } from '../shelf/shelf.ts'
import { listCables } from '../tables/bench.ts'
import type { Database } from '../tables/database.ts'
import { listComputers, listSights, readDevice } from '../tables/devices.ts'
import { readHouse } from '../tables/house.ts'
import { listLines, listReadings, readPlan, readTallies, serialsOfOthers } from '../tables/job.ts'
import { lastLook } from '../tables/looks.ts'
import { lastChanges, lastRunOf, permitsUsed } from '../tables/past-runs.ts'
import { listRuns } from '../tables/runs.ts'
import { readSlip } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import type { Parts } from './parts.ts'

/** A slip that is read. Queries go one after the other: the database may be a transaction, which takes one at a time. */
export type SlipRead = ReturnType<typeof slipRead>

export function slipRead(db: Database, number: string, parts: Parts) {
  const of = `of ${number}`
  return {
    slip: () => parts(`slip ${of}`, ['slip'], () => readSlip(db, number)),
    /* A note that was withdrawn raises the slip's version. */
    lines: () => parts(`lines ${of}`, ['lines', 'slip'], () => listLines(db, number)),
    readings: () => parts(`readings ${of}`, ['readings'], () => listReadings(db, number)),
    plan: () => parts(`plan ${of}`, ['plans'], () => readPlan(db, number)),
    run: () => parts(`run ${of}`, ['runs'], () => lastRunOf(db, number)),
    tallies: (since: number | undefined) =>
      parts(`tallies ${of} since ${since ?? ''}`, ['tallies'], () =>
        readTallies(db, number, since),
      ),
    look: () => parts(`look ${of}`, ['look'], () => lastLook(db, { slip: number })),
    others: () => parts(`others ${of}`, ['others'], () => serialsOfOthers(db, number)),
    sights: () => parts('sights', ['sights'], () => listSights(db)),
    changes: (serial: string) =>
      parts(`changes of ${serial}`, ['runs'], () => lastChanges(db, serial)),
    /* A run that begins forgets what was read of its device. */
    device: (serial: string) =>
      parts(`device ${serial}`, ['devices', 'runs'], () => readDevice(db, serial)),
    permits: () => parts('permits', ['ended'], () => permitsUsed(db)),
    house: () => parts('house', ['house'], () => readHouse(db)),
    shelf: (device: Concerned) =>
      parts(`shelf for ${JSON.stringify(device)}`, ['shelf'], () => shelfFor(db, device)),
    named: (names: readonly string[]) =>
      parts(`called ${names.join(' ')}`, ['shelf'], () => namedOnShelf(db, names)),
    /** What the gate asks of the bench, read with the job so that both are of one moment. */
    async bench(): Promise<JobAt['bench']> {
      const computers = await parts('computers', ['computers', 'sights'], () => listComputers(db))
      return {
        agent: computers.length > 0,
        computers,
        cables: await parts('cables', ['cables', 'runs'], () => listCables(db)),
        runs: await parts('runs at ports', ['runs'], () => listRuns(db, 'at-ports')),
      }
    },
  }
}
