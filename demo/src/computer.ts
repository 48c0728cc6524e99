/**
 * The computer of the demo's bench: drivers for all that comes in, the transfer driver of the phones two versions old.
 */
import { COMPUTER_FORMAT } from '@plain-slate/core'
import { demoFamilies } from './families.ts'

const BEHIND: Readonly<Record<string, number>> = { 'alder-transfer': 2 }

export const DEMO_COMPUTER = {
  format: COMPUTER_FORMAT,
  drivers: demoFamilies().flatMap(({ drivers }) =>
    drivers.map(({ id, newest }) => ({ id, version: newest - (BEHIND[id] ?? 0) })),
  ),
  rivals: [],
  powerSaving: [],
  hubs: [],
  sleepMinutes: null,
}
