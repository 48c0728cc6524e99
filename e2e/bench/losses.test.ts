/**
 * What happens on benches, with real processes: the server dies, the agent dies, a holder sleeps through
 * its lease, somebody plugs another device in, an archive is damaged.
 */
import { existsSync, renameSync } from 'node:fs'
import { join } from 'node:path'
import { readJournal } from '@plain-slate/agent'
import type { ApiError } from '@plain-slate/api'
import { partitionOf } from '@plain-slate/core'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { LEAD, OTHER, WholeShop, newestPackage, until } from './whole-shop.ts'

/** A run of the lead plan lasts about 12 model minutes: seven seconds. */
const PACE = 100

let shop: WholeShop
let customer: readonly string[]
beforeEach(async () => {
  const { databaseUrl } = await cloneTemplate('demo')
  shop = new WholeShop(databaseUrl, PACE)
  await shop.open()
  customer = shop.flash(LEAD).marks
}, 120_000)
afterEach(() => shop.close())

/** The flash is the package, and the customer's data are as they were, bit by bit. */
function writtenWhole(): void {
  const flash = shop.flash(LEAD)
  expect({ wrong: flash.wrong(newestPackage()), marks: flash.marks }).toEqual({
    wrong: [],
    marks: customer,
  })
}
const inMain = (step: number) => step >= 24
const journalOf = (id: string, agent: 'agent a' | 'agent b' = 'agent a') =>
  readJournal(join(shop.agentFolder(agent), 'runs', `${id}.jsonl`))

describe('a run', () => {
  it('goes on while the server is dead, and is shown when it is back', async () => {
    const id = await shop.start()
    await shop.follow(id, 'it writes main', (run) => inMain(run.step))
    await shop.kill('server')
    const before = journalOf(id).length
    await until('it wrote on by itself', () => Promise.resolve(journalOf(id).length >= before + 4))
    await shop.begin('server')
    const ended = await shop.follow(id, 'it ends', (run) => run.state === 'ended')
    expect([ended.word, ended.losses, ended.journal]).toEqual(['done', 0, journalOf(id).length])
    writtenWhole()
  }, 120_000)

  it('whose agent dies in mid-piece says what is new, old and in doubt, and is taken up', async () => {
    const id = await shop.start()
    await shop.follow(id, 'it is within a piece of main', (run) => inMain(run.step) && run.got > 0)
    await shop.kill('agent a')
    const left = await shop.follow(id, 'nobody drives it', (run) => run.ownerless)
    const main = left.parts.find(({ partition }) => partition === 'main')
    expect(left.word).toBe('in-doubt')
    expect(main?.doubt).toBeGreaterThan(0)
    expect((main?.kept ?? 0) + (main?.doubt ?? 0)).toBeLessThan(main?.bytes ?? 0)
    expect(left.parts.find(({ partition }) => partition === 'support')?.readBack).toBe(true)
    await shop.begin('agent a')
    await until('an agent lives', async () => (await shop.takeUp(id)).state === 'running')
    const ended = await shop.follow(id, 'it ends', (run) => run.state === 'ended')
    expect(ended.word).toBe('done')
    writtenWhole()
  }, 120_000)

  it('that hears something against the work in mid-loader goes on until that is proven, and waits there', async () => {
    await shop.hands({ kind: 'cut', serial: LEAD, piece: 1, bytes: 100, how: 'cable' })
    const id = await shop.start()
    const lost = await shop.follow(id, 'its loader is in doubt', (run) => run.hold !== null)
    expect(lost.hold).toBe('loader')
    const at = `/api/slips/${lost.slip ?? ''}`
    const say = (answer: string) =>
      shop.call('POST', `${at}/lines`, { lines: [{ topic: 'condition.wet', answer }] })
    await say('wet')
    expect(await shop.run(id)).toMatchObject({ stop: null, against: { answer: 'wet' } })
    await shop.hands({ kind: 'plug', serial: LEAD, port: 'P2' })
    const held = await shop.follow(id, 'it waits', (run) => run.state === 'stopped')
    expect(held.hold).toBe(null)
    expect(held.parts.find(({ partition }) => partition === 'loader')?.readBack).toBe(true)
    expect(held.parts.find(({ partition }) => partition === 'main')?.kept).toBe(0)
    const refused = await shop.call<ApiError>('POST', `/api/runs/${id}/take-up`, {})
    expect(refused.code).toBe('run.against')
    await say('dry')
    await until('it is taken up', async () => (await shop.takeUp(id)).state !== 'stopped')
    await shop.follow(id, 'it ends', (run) => run.state === 'ended')
    writtenWhole()
  }, 120_000)

  it('whose holder sleeps through its lease is written by the newer owner alone', async () => {
    const id = await shop.start()
    await shop.follow(id, 'it is within a piece of main', (run) => inMain(run.step) && run.got > 0)
    shop.signal('agent a', 'SIGSTOP')
    await shop.follow(id, 'its lease lapses', (run) => run.ownerless)
    await shop.begin('agent b')
    await until('the newer agent lives', async () => (await shop.takeUp(id)).state === 'running')
    /* It has met the device: what it only means to do keeps nobody else from it. */
    await until('the newer owner has met it', () =>
      Promise.resolve(journalOf(id, 'agent b').some(({ kind }) => kind === 'done')),
    )
    const slept = journalOf(id).length
    shop.signal('agent a', 'SIGCONT')
    const ended = await shop.follow(id, 'it ends', (run) => run.state === 'ended')
    expect(ended.word).toBe('done')
    const epochs = (agent: 'agent a' | 'agent b') =>
      journalOf(id, agent).flatMap((entry) => (entry.kind === 'intend' ? [entry.epoch] : []))
    /* It may put down what had been answered before it slept, and read; whatever it would write next is refused. */
    const late = journalOf(id).slice(slept)
    const written = late.filter((one) => one.kind === 'done' && one.evidence.is === 'kept')
    expect(written.length).toBeLessThanOrEqual(1)
    expect(late.at(-1)?.kind ?? 'intend').toBe('intend')
    expect(Math.max(...epochs('agent b'))).toBeGreaterThan(Math.max(...epochs('agent a')))
    writtenWhole()
  }, 120_000)

  it('whose bytes are gone stops with the reason, and is taken up when they are back', async () => {
    const id = await shop.start()
    await shop.follow(id, 'it writes main', (run) => inMain(run.step))
    const { archives } = await shop.shelf()
    const { sha256 = '' } = archives.find(({ name }) => name === 'tarn-H2.104.r4.tar') ?? {}
    const path = join(shop.folder, 'vault', sha256.slice(0, 2), sha256.slice(2))
    renameSync(path, `${path}.away`)
    const stopped = await shop.follow(id, 'it stops', (run) => run.state === 'stopped')
    expect([stopped.word, stopped.why?.code]).toEqual(['stopped', 'fault'])
    expect(String(stopped.why?.facts['what'])).toContain(sha256.slice(0, 8))
    /* Still gone, it is not begun on: nothing is sent to the device. */
    const before = journalOf(id).length
    await shop.takeUp(id)
    const again = await shop.follow(id, 'it stops again', (run) => run.why?.code === 'bytes')
    expect([again.state, journalOf(id).length]).toEqual(['stopped', before])
    renameSync(`${path}.away`, path)
    expect((await shop.takeUp(id)).state).toBe('wanted')
    const ended = await shop.follow(id, 'it ends', (run) => run.state === 'ended')
    expect(ended.word).toBe('done')
    writtenWhole()
  }, 120_000)

  it('stopped on a loader of which there is one copy is not put away before that is proven', async () => {
    await shop.hands({ kind: 'cut', serial: LEAD, piece: 1, bytes: 4196, how: 'cable' })
    const id = await shop.start()
    const lost = await shop.follow(id, 'its cable is out', (run) => run.word === 'in-doubt')
    const at = lost.steps[lost.step - 1]
    expect([at && partitionOf(at), lost.hold]).toEqual(['loader', 'loader'])
    await shop.call('POST', `/api/runs/${id}/stop`)
    const stopped = await shop.follow(id, 'it stops', (run) => run.state === 'stopped')
    expect(stopped.hold).toBe('loader')
    const refused = await shop.call<ApiError>('POST', `/api/runs/${id}/put-away`)
    expect(refused.sentence).toContain('one copy')
    await shop.hands({ kind: 'plug', serial: LEAD, port: 'P2' })
    await shop.takeUp(id)
    const on = await shop.follow(id, 'it is proven', (run) => inMain(run.step))
    expect(on.hold).toBeNull()
  }, 120_000)

  it('is not started at 3 %, nor past what nobody signed, whoever asks', async () => {
    const { number, digest } = await shop.ready()
    const start = () => shop.call<ApiError>('POST', `/api/slips/${number}/start`, { digest })
    await shop.hands({ kind: 'charge', serial: LEAD, percent: 3 })
    await until('it is seen', async () => (await shop.port('P2')).seen?.battery === 3)
    expect((await start()).sentence).toContain('It has the charge this plan needs')
    expect((await shop.port('P2')).word).not.toBe('hands-off')
  }, 120_000)

  it('waits while another device hangs in its port, says which, and takes nothing from it', async () => {
    const other = shop.flash(OTHER).marks
    const id = await shop.start()
    await shop.follow(id, 'it writes main', (run) => inMain(run.step))
    await shop.hands({ kind: 'unplug', serial: LEAD })
    await shop.hands({ kind: 'keys', serial: OTHER, to: 'off' })
    await shop.hands({ kind: 'keys', serial: OTHER, to: 'loader' })
    await shop.hands({ kind: 'plug', serial: OTHER, port: 'P2' })
    const waits = await shop.follow(
      id,
      'it sees the other',
      ({ waiting }) => waiting?.seen?.serial === OTHER,
    )
    expect([waits.state, waits.word, waits.stop]).toEqual(['running', 'in-doubt', null])
    expect(shop.flash(OTHER).marks).toEqual(other)
    expect(journalOf(id).at(-1)?.kind).toBe('intend')
    await shop.hands({ kind: 'unplug', serial: OTHER })
    await shop.hands({ kind: 'plug', serial: LEAD, port: 'P2' })
    await shop.follow(id, 'it ends', (run) => run.state === 'ended')
    writtenWhole()
  }, 120_000)
})

describe('a damaged archive', () => {
  it('is refused by name, entry and offset; its bytes are gone and nothing else is', async () => {
    const before = (await shop.shelf()).packages
    await shop.shelve('tarn-H2.0ZX.r4')
    const { archives, packages } = await shop.shelf()
    const damaged = archives.find(({ name }) => name === 'tarn-H2.0ZX.r4.tar')
    expect(damaged).toMatchObject({
      state: 'refused',
      refusal: { entry: 'main.img', rule: 'truncated' },
    })
    expect(packages).toEqual(before)
    const stored = ({ sha256 }: { readonly sha256: string }) =>
      existsSync(join(shop.folder, 'vault', sha256.slice(0, 2), sha256.slice(2)))
    // the refusal is told first, its bytes go after it
    await until('its bytes are gone', () =>
      Promise.resolve(damaged !== undefined && !stored(damaged)),
    )
    expect(archives.map((one) => [one.name, stored(one)])).toEqual(
      archives.map((one) => [one.name, one.state === 'whole']),
    )
  }, 120_000)
})
