/**
 * What may go on a device for what its owner wants, on the page: variants, floors, channels, chains, siblings, permits,
 * and a lead's word.
 */
import type { DeviceFacts } from '@plain-slate/core'
import { permitFile } from '@plain-slate/demo'
import type { Page } from '@playwright/test'
import { expect } from '../bench.ts'
import { knownTest as test, playedSlip } from '../known.ts'
import { title } from '../shop.ts'

const PHONE = {
  mode: 'transfer',
  model: 'CORV-4N',
  board: 'B2',
  chipset: 'Mica 2',
  storageGb: 128,
  region: 'HI',
  carrier: 'O',
  build: '20-2632.0-HO',
  release: 20,
  patchDate: '2026-07-01',
  loaderVersion: 31,
  floorLoader: 2,
  floorModem: 2,
  floorMain: 2,
  bootLock: 'closed',
} as const
const TABLET = {
  mode: 'rescue',
  model: 'OSTR-11A',
  board: 'g1',
  chipset: 'Mica 3',
  storageGb: 64,
  region: 'HI',
  carrier: 'O',
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
} as const
const FIVE = { model: 'CORV-5N', board: 'C', chipset: 'Mica 3', patchDate: '2026-08-01' } as const
const phone = (serial: string, more: Partial<DeviceFacts> = {}) => ({ ...PHONE, serial, ...more })
const tablet = (serial: string, more: Partial<DeviceFacts> = {}) => ({ ...TABLET, serial, ...more })

const PHOTOS = { 'survive.photos': 'must' }
const routes = (page: Page) => page.getByRole('list', { name: 'Routes' }).getByRole('listitem')
const margin = (page: Page) => page.getByRole('complementary')
async function askWhy(page: Page, of: string): Promise<void> {
  const main = page.getByRole('main')
  const row = main.getByRole('listitem').filter({ has: page.getByText(of, { exact: true }) })
  await row.getByRole('link', { name: 'Why not this one?' }).press('Enter')
  await expect(margin(page)).toContainText(`Why not ${of}?`)
}

test('a phone of one carrier becomes open, its photos kept: another variant, and not its own again', async ({
  page,
  desk,
  known,
}) => {
  const facts = phone('COR5NC310499', { ...FIVE, carrier: 'S', build: '20-2634.0-HS' })
  const answers = { ...PHOTOS, 'want.row': 'HI/O' }
  const wish = { device: 'Alder 5', intent: 'variant-change', answers } as const
  const number = await playedSlip(known, { ...wish, facts })
  await desk.signIn('Ilse', `/slips/${number}/firmware`)
  await expect(title(page)).toContainText('the best ends on 21-2641.1-HO')
  const best = routes(page).first()
  await expect(best).toContainText('kept')
  await expect(margin(page)).toContainText('Takes up carrier O in place of S: the data stay')
  await expect(margin(page)).toContainText('A network lock of S stays as it is')
  await expect(routes(page).filter({ hasText: '-HS' })).toHaveCount(0)
  await page.getByText('not reach all that is wished').click()
  const own = page.locator('details li').filter({ hasText: '20-2640.1-HS' }).first()
  await expect(own).toContainText('it is not the variant that is wanted')
  await desk.axe('a variant change')
})

test('a floor forbids going back on one phone and allows it on the other', async ({
  page,
  desk,
  known,
}) => {
  const wish = { device: 'Alder 4', intent: 'downgrade' } as const
  const raised = { floorLoader: 3, floorModem: 3, floorMain: 3 }
  const shut = phone('COR4MB200499', { ...raised, build: '20-2640.1-HO', patchDate: '2026-10-01' })
  const forbidden = await playedSlip(known, { ...wish, facts: shut })
  await desk.signIn('Ilse', `/slips/${forbidden}/firmware`)
  await expect(title(page)).toHaveText(
    'It cannot go back as wished; what is open ends on 20-2638.0-HO',
  )
  await expect(page.getByRole('main')).toContainText(
    'Nearest to the wish would be 19-2620.1-HO. Generation',
  )
  await askWhy(page, '19-2620.1-HO')
  await expect(margin(page)).toContainText('Generation 2 of the system is below its floor 3')
  await desk.axe('a downgrade that a floor forbids')

  const open = phone('COR4NB201499')
  const allowed = await playedSlip(known, { ...wish, facts: open })
  await page.goto(`/slips/${allowed}/firmware`)
  await expect(title(page)).toContainText('the best ends on 19-2620.1-HO')
  const best = routes(page).first()
  await expect(best).toContainText('wiped')
  await expect(best).toContainText('19-2620.1-HO')
  await askWhy(page, '18-2610.2-HO')
  await expect(margin(page)).toContainText('Generation 1 of the system is below its floor 2')
})

test('a tablet on trial goes back to stable with a wipe, and where data must survive that is said', async ({
  page,
  desk,
  known,
}) => {
  const wish = { device: 'Fen 11', intent: 'leave-channel' } as const
  const saved = await playedSlip(known, { ...wish, facts: tablet('OST11A260499') })
  await desk.signIn('Ilse', `/slips/${saved}/firmware`)
  const plain = routes(page).filter({ hasText: 'FEN-26.21B-S by parts over the cable' })
  await expect(plain).toContainText('wiped')
  await expect(margin(page)).toContainText(
    'The customer’s data are wiped: what goes on could not open them',
  )
  /* The trial build goes to a few: without a lead's word it is no road at all. */
  await expect(routes(page).filter({ hasText: 'FEN-26.21A-T by' })).toHaveCount(0)

  const kept = { ...wish, answers: PHOTOS, facts: tablet('OST11A260497') }
  await page.goto(`/slips/${await playedSlip(known, kept)}/firmware`)
  await expect(title(page)).toContainText('Nothing on the shelf fits it')
  await expect(page.getByRole('main')).toContainText('and they must survive')
})

test('a tablet that was left behind gets a loader and two steps, each on its base, in one route', async ({
  page,
  desk,
  known,
}) => {
  const stable = { build: 'FEN-26.21B-S', track: 'S', release: 8 }
  const wish = { device: 'Fen 11', intent: 'update', answers: PHOTOS } as const
  const number = await playedSlip(known, { ...wish, facts: tablet('OST11A260498', stable) })
  await desk.signIn('Ilse', `/slips/${number}/firmware`)
  await expect(title(page)).toContainText('the best ends on FEN-26.23A-S')
  const best = routes(page).first()
  await expect(best).toContainText(
    'loader 12, FEN-26.21B-S to FEN-26.22A-S, its own update is waited for, then',
  )
  await expect(best).toContainText('kept')
  await expect(best).not.toContainText('is being rehearsed', { timeout: 60_000 })
  await expect(best).not.toContainText('It fails in rehearsal')
})

test('a lock that is to be closed is closed last, and stays open where that takes what must survive', async ({
  page,
  desk,
  known,
}) => {
  const facts = phone('COR4NB200496', { build: '20-2638.0-HO', bootLock: 'open' })
  const wish = { device: 'Alder 4', intent: 'relock', facts } as const
  const number = await playedSlip(known, wish)
  await desk.signIn('Ilse', `/slips/${number}/firmware`)
  await expect(routes(page).first()).toContainText('then its boot lock is closed')
  const kept = await playedSlip(known, {
    ...wish,
    facts: { ...facts, serial: 'COR4NB200495' },
    answers: PHOTOS,
  })
  await page.goto(`/slips/${kept}/firmware`)
  await expect(title(page)).toContainText('No route reaches all that is wished')
  await expect(routes(page).first()).toContainText('the boot lock stays open')
  const opens = page.locator('[data-blocked]').first()
  await expect(opens).toContainText('Closing the boot lock takes the customer’s data')
  await desk.axe('what would reach the whole wish')
})

test('firmware of the sibling with another chipset is out, and nobody’s word changes that', async ({
  page,
  desk,
  known,
}) => {
  const facts = phone('COR5XE300499', {
    ...{ model: 'CORV-5X', board: 'E', chipset: 'Flint 1', region: 'EX' },
    build: '20-2630.0-EO',
  })
  const number = await playedSlip(known, { device: 'Alder 5', intent: 'update', facts })
  await desk.signIn('Ilse', `/slips/${number}/firmware`)
  await expect(title(page)).toContainText('the best ends on 20-2640.1-EO')
  const row = page.getByRole('main').getByRole('listitem').filter({ hasText: '21-2641.1-HO' })
  await expect(row).toContainText(
    'For CORV-5N, one letter off from CORV-5X and with another chipset (Mica 3)',
  )
  await askWhy(page, '21-2641.1-HO')
  await expect(margin(page)).toContainText('Mica 3')
  const chipset = margin(page).locator('[data-rule="identity.chipset"]')
  await expect(chipset).toContainText('Flint 1')
  await expect(chipset.getByRole('button')).toHaveCount(0)
  await desk.axe('a sibling with another chipset')
})

test('service software waits for its maker’s permit, and takes none that is for another device', async ({
  page,
  desk,
  known,
}) => {
  const facts = phone('COR4MB200413', {
    model: 'CORV-4M',
    build: '20-2638.0-HO',
    deviceId: '9E41-0413',
  })
  const number = await playedSlip(known, { device: 'Alder 4', intent: 'service', facts })
  await desk.signIn('Ilse', `/slips/${number}/firmware`)
  const blocked = page.locator('[data-blocked]')
  await expect(blocked).toContainText('It needs a permit of its maker’s for this device')
  await expect(blocked).toHaveCount(1)
  const main = page.getByRole('main')
  const device = '9E41-04I3'
  const id = 'PM-2610-0377'
  const file = permitFile({ id, device, scope: 'service', until: '2026-11-30' })
  const puts = (text: string) =>
    main.getByLabel('Its signed file').setInputFiles({
      name: `${id}.json`,
      mimeType: 'application/json',
      buffer: Buffer.from(text),
    })
  await puts(file.replace('9E41', '9E42'))
  await expect(page.getByText('No key of the trust store signed permit PM-2610-0377')).toBeVisible()
  await expect(main.getByText('None was put down.')).toBeVisible()
  await puts(file)
  await expect(main.getByText('Signed by Corvane (key corvane)')).toBeVisible()
  await expect(blocked).toContainText(
    'The permit says 9E41-04I3; this is 9E41-0413: character 8 is I',
  )
  await desk.axe('a permit by its file')
  await main.getByText('Type another …').click()
  await main.getByLabel('Its number').fill('PM-2610-0377')
  await main.getByLabel('The device id it is for').fill('9E41-O4I3')
  await main.getByLabel('Until (year-month-day)').fill('2026-11-30')
  await main.getByRole('button', { name: 'Put it down', exact: true }).press('Enter')
  await expect(blocked).toContainText(
    'The permit says 9E41-O4I3; this is 9E41-0413: character 6 is O there and 0 here, and they look alike',
  )
  await desk.axe('a permit of another device')
})

test('a lead’s word opens a package of another region, with a reason; a technician’s does not', async ({
  page,
  desk,
  known,
}) => {
  const facts = {
    ...{ model: 'BRAK-H2K', serial: 'TRN4490077F99', mode: 'normal', region: 'EX' },
    floor: 5,
  } as const
  const tickets = { 'survive.tickets': 'must' }
  const wish = { device: 'Brakken H2K', intent: 'update', answers: tickets } as const
  const number = await playedSlip(known, { ...wish, facts })
  await desk.signIn('Ilse', `/slips/${number}/firmware`)
  const blocked = page.locator('[data-blocked]').first()
  await expect(blocked).toContainText('For region HI; this is EX')
  await blocked.getByRole('button', { name: /Overrule/ }).press('Enter')
  await blocked.getByRole('textbox').first().fill('Its owner moved to the isles')
  await blocked.getByRole('textbox').first().press('Enter')
  await expect(title(page)).not.toContainText('Nothing on the shelf fits it')
  await expect(margin(page)).toContainText('Its owner moved to the isles')
  await desk.axe('a rule overruled by a lead')
})

test('what is known is found on the shelf by words and by proof, a page at a time', async ({
  page,
  desk,
}) => {
  await desk.signIn('Tavi', '/shelf')
  await expect(title(page)).toHaveText('217 packages are known, none here, none published')
  await expect(page.getByRole('main')).toContainText('Holm depot, catalogue 41 of 2026-10-12')
  await expect(page.getByRole('main')).toContainText('1 to 60 of 217')
  await page.getByRole('button', { name: 'those after' }).press('Enter')
  await expect(page.getByRole('main')).toContainText('61 to 120 of 217')
  expect(page.url()).toContain('after=60')
  await page.getByLabel('Find among packages').fill('OSTR-11C 26.19A')
  await expect(title(page)).toHaveText('3 are found')
  await expect(page.getByRole('main')).not.toContainText('those after')
  await desk.axe('the shelf, searched')
  await page.goto('/shelf?state=published')
  await expect(page.getByRole('main')).toContainText('No package is found by that.')
})
