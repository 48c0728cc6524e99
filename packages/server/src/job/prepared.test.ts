/** What was prepared is told by everything that was said and done on the slip, of whatever piece of its work. */
import { UNPREPARED } from '@plain-slate/core'
import { expect, it } from 'vitest'
import type { JobAt } from './job-at.ts'
import { preparedOf } from './prepared.ts'

const job = (said: Readonly<Record<string, string>> = {}, more: object = {}) =>
  ({
    all: Object.entries(said).map(([topic, answer]) => ({ topic, answer })),
    family: undefined,
    readings: [],
    ...more,
  }) as unknown as JobAt
const ran = (kinds: readonly string[], state: string, fate = 'kept') => ({
  run: { state },
  taken: {
    made: { plan: { steps: kinds.map((kind) => ({ kind })) } },
    shown: { fates: [{ fate }] },
  },
})

it('tells what was given, put off and left on it', () => {
  expect(preparedOf(job())).toEqual(UNPREPARED)
  expect(preparedOf(job({ 'ready.permission': 'done' })).permission).toBe(true)
  expect(preparedOf(job({ 'ready.restore': 'owner' })).restore).toBe(true)
  expect(preparedOf(job({ 'ready.addons': 'done' })).addons).toBe(true)
  expect(preparedOf(job({ 'ready.addons': 'none' })).addons).toBe(false)
  const copies = (...of: Parameters<typeof ran>) => preparedOf(job({}, ran(...of))).copies
  expect(copies(['copy', 'install'], 'ended')).toBe(true)
  expect(copies(['copy', 'install', 'drop'], 'ended')).toBe(false)
  expect(copies(['copy', 'install', 'drop'], 'stopped')).toBe(true)
  expect(copies(['copy', 'install'], 'ended', 'wiped')).toBe(false)
  expect(copies(['write'], 'ended')).toBe(false)
})
