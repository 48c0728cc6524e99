/** Days that are due after a job: put down on a slip, told at the counter, on its sheet and as a calendar. */
import type { CareShown } from '@plain-slate/api'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { Slip, shelvedBench } from './job-slip.ts'

let bench: Bench
let ilse: Browser
beforeAll(async () => {
  bench = await shelvedBench()
  ilse = await bench.at('Ilse')
})
afterAll(() => bench.close())

const cares = async (slip: Slip) =>
  (await ilse.get<CareShown[]>('/api/care')).body
    .filter(({ number }) => number === slip.number)
    .map(({ care, due }) => `${care} ${due.slice(0, 10)}`)

it('stand at the counter until they are done, the first first, and leave as a calendar', async () => {
  const slip = await Slip.open(bench, ilse, 'P1')
  await slip.takeIn()
  expect(await cares(slip)).toEqual([])
  expect((await slip.say({ 'due.patch': 'some day' })).code).toBe('slip.line')
  expect((await slip.say({ 'due.patch': '2026-02-30' })).code).toBe('slip.line')
  await slip.say({ 'due.patch': '2026-12-30', 'due.updates': '2026-11-14' })
  expect(await cares(slip)).toEqual(['updates 2026-11-14', 'patch 2026-12-30'])
  expect((await slip.job()).dues.standing).toEqual([
    { what: 'updates', on: '2026-11-14' },
    { what: 'patch', on: '2026-12-30' },
  ])
  const calendar = await ilse.text('/api/care.ics')
  expect(calendar).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2\.0/)
  const unfolded = calendar.replaceAll('\r\n ', '')
  expect(unfolded).toContain(`UID:${slip.number}-updates@plain-slate`)
  expect(unfolded).toContain('DTSTART;VALUE=DATE:20261114')
  expect(unfolded).toContain(`SUMMARY:${slip.number}\\, Brakken H2K: updates are held back`)
  await slip.say({ 'due.updates': 'done' })
  expect(await cares(slip)).toEqual(['patch 2026-12-30'])
  await slip.say({ 'due.patch': '2027-01-10' })
  expect(await cares(slip)).toEqual(['patch 2027-01-10'])
  await slip.say({ 'due.patch': 'not-needed' })
  expect(await cares(slip)).toEqual([])
})
