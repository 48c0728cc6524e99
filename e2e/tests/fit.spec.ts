/**
 * What may go on a device for what its owner wants, on the page: variants, floors, channels, chains, siblings, permits,
 * and a lead's word.
 */
import type { DeviceFacts } from '@plain-slate/core'
import { expect } from '../bench.ts'
import { knownTest as test, playedSlip } from '../known.ts'

const phone = (serial: string, more: Partial<DeviceFacts> = {}) =>
  ({
    mode: 'transfer',
    model: 'CORV-4N',
    board: 'B2',
    chipset: 'Mica 2',
    storageGb: 128,
    region: 'HI',
    carrier: 'O',
    serial,
    build: '20-2632.0-HO',
    release: 20,
    patchDate: '2026-07-01',
    loaderVersion: 30,
    floorLoader: 2,
    floorModem: 2,
    floorMain: 2,
    bootLock: 'closed',
    ...more,
  }) as const
const tablet = (serial: string, more: Partial<DeviceFacts> = {}) =>
  ({
    mode: 'rescue',
    model: 'OSTR-11A',
    board: 'g1',
    chipset: 'Mica 3',
    storageGb: 64,
    region: 'HI',
    carrier: 'O',
    serial,
    build: 'FEN-26.21A-T',
    track: 'T',
    release: 9,
    patchDate: '2026-10-01',
    loaderVersion: 11,
    floor: 4,
    slot: 'a',
    slotToTry: 'a',
    merge: 'none',
    bootLock: 'closed',
    ...more,
  }) as const

test('look', async ({ page, desk, server }) => {
  const all = [
    await playedSlip(server, { device: 'Alder 5', intent: 'variant-change', facts: phone('COR5NC310499', { model: 'CORV-5N', board: 'C', chipset: 'Mica 3', carrier: 'S', build: '20-2634.0-HS', patchDate: '2026-08-01', loaderVersion: 31, floorLoader: 3, floorMain: 3, floorModem: 3 }), answers: { 'survive.photos': 'must' } }),
    await playedSlip(server, { device: 'Alder 4', intent: 'downgrade', facts: phone('COR4MB200499', { model: 'CORV-4M', build: '20-2640.1-HO', patchDate: '2026-10-01', loaderVersion: 31, floorLoader: 3, floorMain: 3, floorModem: 3 }) }),
    await playedSlip(server, { device: 'Alder 4', intent: 'downgrade', facts: phone('COR4NB201499') }),
    await playedSlip(server, { device: 'Fen 11', intent: 'leave-channel', facts: tablet('OST11A260499') }),
    await playedSlip(server, { device: 'Fen 11', intent: 'update', facts: tablet('OST11A260498', { build: 'FEN-26.21B-S', track: 'S', release: 8 }), answers: { 'survive.photos': 'must' } }),
    await playedSlip(server, { device: 'Alder 5', intent: 'update', facts: phone('COR5XE300499', { model: 'CORV-5X', board: 'E', chipset: 'Flint 1', region: 'EX', build: '20-2630.0-EO', loaderVersion: 31, floorLoader: 2 }) }),
    await playedSlip(server, { device: 'Alder 4', intent: 'service', facts: phone('COR4MB200413', { model: 'CORV-4M', build: '20-2638.0-HO', loaderVersion: 31 }) }),
  ]
  await desk.signIn('Ilse', `/slips/${all[0]}/firmware`)
  for (const one of all) {
    await page.goto(`/slips/${one}/firmware`)
    await page.waitForTimeout(6000)
    console.log('=====', one, await page.getByRole('main').innerText().then((t) => t.slice(0, 2500)))
    console.log('-- margin', await page.getByRole('complementary').innerText().then((t) => t.slice(0, 900)))
  }
  expect(1).toBe(1)
})
