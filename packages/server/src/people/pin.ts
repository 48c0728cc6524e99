/**
 * PINs: hashed with argon2id, tried one at a time a person, slowed after failures. A PIN is short, so
 * the slowing is what protects it; the count stands in the database and outlives every process.
 */
import { hash, verify } from '@node-rs/argon2'
import type { Transaction } from '../tables/database.ts'
import { lockPin, setFailures } from '../tables/people.ts'
import type { PinRow } from '../tables/people.ts'

/** Free tries; after them each failure doubles the wait, up to the longest. */
const FREE_TRIES = 3
const LONGEST_WAIT_S = 300

/** argon2id with OWASP's second recommended set: 19 MiB, 2 passes, 1 lane (about 40 ms here). */
const COST = { memoryCost: 19456, timeCost: 2, parallelism: 1 } as const

export const hashPin = (pin: string): Promise<string> => hash(pin, COST)

export type PinTry =
  | { readonly kind: 'right'; readonly person: PinRow }
  | { readonly kind: 'wrong'; readonly person: PinRow | undefined }
  | { readonly kind: 'slow'; readonly person: PinRow; readonly waitSeconds: number }

/** Seconds to wait after this many failures in a row: 0, 0, 0, 2, 4, 8 … 300. */
export function waitAfter(failures: number): number {
  if (failures <= FREE_TRIES) return 0
  return Math.min(2 ** (failures - FREE_TRIES), LONGEST_WAIT_S)
}

/**
 * Tries a PIN under the person's lock. While a wait runs the PIN is not looked at. Somebody who has
 * left, or who never was, is "wrong". `now` is real time in ms.
 */
export async function tryPin(
  trx: Transaction,
  id: string,
  pin: string,
  now: number,
): Promise<PinTry> {
  const person = await lockPin(trx, id)
  if (person === undefined || !person.active) return { kind: 'wrong', person: undefined }
  const left = Math.ceil(((person.waitUntil?.getTime() ?? 0) - now) / 1000)
  if (left > 0) return { kind: 'slow', person, waitSeconds: left }
  if (await verify(person.pinHash, pin)) {
    if (person.failures > 0) await setFailures(trx, id, 0, null)
    return { kind: 'right', person }
  }
  const failures = person.failures + 1
  const wait = waitAfter(failures)
  await setFailures(trx, id, failures, wait === 0 ? null : new Date(now + wait * 1000))
  return { kind: 'wrong', person }
}
