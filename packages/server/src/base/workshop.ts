/** What every feature of the server is handed: the database, the shop's clock, the news, the log. */
import type { Family, Ms } from '@plain-slate/core'
import { ms } from '@plain-slate/core'
import type { Vault } from '@plain-slate/vault'
import type { Logger } from 'pino'
import type { Config } from './config.ts'
import type { Hub } from '../events/hub.ts'
import type { Database } from '../tables/database.ts'
import { readShop } from '../tables/shop.ts'

export type Workshop = {
  readonly db: Database
  readonly config: Config
  readonly hub: Hub
  readonly log: Logger
  readonly clock: ShopClock
  readonly version: string
  readonly vault: Vault
  /** Bytes that are free where the vault lies. */
  readonly room: () => Promise<number>
  readonly families: readonly Family[]
  /** Counts how often they changed. */
  readonly familiesMark: () => number
  /** Reads anew what was taken in. */
  readonly reloadFamilies: () => Promise<void>
  /** Milliseconds in which a small body must be here whole, and an upload bring one more byte. */
  readonly bodyTime: { readonly small: number; readonly still: number }
  /** Hands long work to the queue; where no queue runs, it is done at once. */
  readonly enqueue: (work: string, data: Readonly<Record<string, string>>) => Promise<void>
}

/** The shop's clock: real time plus the shop's offset (zero outside the demo). */
export type ShopClock = { readonly now: () => Promise<Ms> }

/** The shop's day, as an ISO date. */
export const dayOf = async ({ clock }: Pick<Workshop, 'clock'>): Promise<string> =>
  new Date(await clock.now()).toISOString().slice(0, 10)

/**
 * A clock that reads the offset once the shop is founded and keeps it, since it never changes after.
 * `realNow` is passed in so that tests can hold time still.
 */
export function shopClock(db: Database, realNow: () => number = Date.now): ShopClock {
  let offset: number | undefined
  return {
    async now() {
      offset ??= (await readShop(db))?.clockOffsetMs
      return ms(realNow() + (offset ?? 0))
    },
  }
}
