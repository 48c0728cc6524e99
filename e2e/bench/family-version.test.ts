/**
 * A slip remembers by which version of its family it was decided: a server with a newer one says which open slips were
 * decided otherwise, and what of each plan that changes. Two servers stand before one database, each with its files.
 */
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { FamilyShown } from '@plain-slate/api'
import { FAMILIES_FOLDER } from '@plain-slate/demo'
import type { Bench } from '@plain-slate/server/testing'
import { openBench } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { Slip, is, shelvedBench } from './job-slip.ts'

let first: Bench
const opened: Bench[] = []
beforeAll(async () => {
  first = await shelvedBench()
})
afterAll(async () => {
  for (const one of opened) await one.close()
  await first.close()
})

/** A server over the same database whose handheld family is another version, with a text exchanged. */
async function otherwise(version: number, from: string, to: string): Promise<Bench> {
  const folder = mkdtempSync(join(tmpdir(), 'families-'))
  cpSync(FAMILIES_FOLDER, folder, { recursive: true })
  const file = join(folder, 'tarn.yaml')
  const text = readFileSync(file, 'utf8')
  expect(text).toContain(from)
  writeFileSync(file, text.replace('version: 1', `version: ${version}`).replace(from, to))
  const same = () => Promise.resolve(first.databaseUrl)
  const bench = await openBench('demo', same, { PLAIN_SLATE_FAMILIES: folder })
  opened.push(bench)
  return bench
}
const decided = async (bench: Bench) => {
  const ilse = await bench.at('Ilse')
  return (await ilse.get<FamilyShown>('/api/families/tarn')).body.decided
}

it('is told with what another version changes, and holds where it changes nothing', async () => {
  const slip = await Slip.open(first, await first.at('Ilse'), 'P1')
  await slip.planned()
  const own = ({ number }: { readonly number: string }) => number === slip.number
  expect((await decided(first)).filter(own)).toEqual([])

  /* Another word for what a mode looks like moves no plan. */
  const renamed = await otherwise(2, 'looks: the start page', 'looks: the first page')
  expect((await decided(renamed)).find(own)).toEqual({
    number: slip.number,
    version: 'tarn 1',
    changes: null,
  })
  const kept = new Slip(renamed, await renamed.at('Ilse'), slip.number, 'P1')
  expect(is(await kept.job(), 'plan')).toBe('done')

  /* The radio is no longer followed by a restart: that is another plan, and the version stands first among why. */
  const moved = await otherwise(3, 'restartAfter: [loader, modem]', 'restartAfter: [loader]')
  expect((await decided(moved)).find(own)).toMatchObject({
    version: 'tarn 1',
    changes: [{ what: 'family', from: 'tarn 1', to: 'tarn 3' }],
  })
  const stale = new Slip(moved, await moved.at('Ilse'), slip.number, 'P1')
  expect(is(await stale.job(), 'plan')).toBe('again')
})
