/**
 * Plans that are taken and go stale, readiness, the start and the hand back of a slip through the server:
 * every claim moves with the input it rests on, and stays when something beside it changes.
 */
import { statSync, utimesSync } from 'node:fs'
import { join } from 'node:path'
import type { ApiError, Job } from '@plain-slate/api'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { BENCH_SECRET, agentSees, atShell } from '@plain-slate/server/testing/agent'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { NEWEST, Slip, is, keyOf, shelvedBench } from './job-slip.ts'
import { built } from './whole-shop.ts'

let bench: Bench
let ilse: Browser
beforeAll(async () => {
  bench = await shelvedBench()
  ilse = await bench.at('Ilse')
})
afterAll(() => bench.close())

describe('a plan', () => {
  it('is taken only as it was shown, and says who took it', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    await slip.read()
    expect((await slip.take('0'.repeat(64))).code).toBe('slip.no-plan')
    await slip.say({ 'route.package': NEWEST })
    expect((await slip.take('0'.repeat(64))).code).toBe('plan.changed')
    const taken = await slip.take()
    expect(taken.taken).toMatchObject({ by: 'Ilse Maro', changes: null })
    expect(taken.now?.ends).toMatchObject({
      build: 'H2.104.r4',
      outcome: 'normal',
      data: 'readable',
    })
  })

  it.each<[string, (slip: Slip) => Promise<unknown>, readonly string[] | null]>([
    ['the board is another', (slip) => slip.read({ board: 'r5' }), ['fact.board']],
    ['another loader is read', (slip) => slip.read({ loaderVersion: 7 }), ['fact.loaderVersion']],
    [
      'its digests are read',
      (slip) => slip.read({ mode: 'normal' }, { digests: [rescueDigest('tarn-H2.104.r4')] }),
      ['evidence.rescue'],
    ],
    ['it is in another mode', (slip) => slip.sees({ mode: 'loader' }), ['mode']],
    [
      'another route is picked',
      (slip) => slip.say({ 'route.package': keyOf('tarn-H2.0ZP.r4') }),
      ['route'],
    ],
    ['its data may go', (slip) => slip.say({ 'survive.tickets': 'may-go' }), ['keepData']],
    ['a thing is on it after all', (slip) => slip.say({ 'survive.photos': 'must' }), ['things']],
    ['others doubt its board', (slip) => slip.type('board', 'r5', 'screen'), null],
    ['its charge falls', (slip) => slip.sees({ batteryPercent: 12 }), null],
    ['a reading says the same again', (slip) => slip.type('board', 'r4', 'screen'), null],
    ['a note is written', (slip) => ilse.post(slip.at('notes'), { text: 'no matter' }), null],
    ['it is unplugged', (slip) => agentSees(bench.address, slip.port, null), null],
  ])('goes stale, in words, when it should: %s', async (_, change, what) => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.planned()
    await change(slip)
    const changes = (await slip.plan()).taken?.changes
    expect(changes?.map((one) => one.what) ?? null).toEqual(what)
    expect((await slip.job()).plan?.stale).toBe(what !== null)
  })

  it('is made again byte by byte from what it was decided with, whatever was read since', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.planned()
    const decided = async () => (await slip.plan()).taken?.decided
    const before = await decided()
    expect(before).toMatchObject({ same: true, family: { id: 'tarn' } })
    expect(before?.was).toBe((await slip.plan()).taken?.digest)
    await slip.read({ board: 'r5' }, { digests: [rescueDigest('tarn-H2.104.r4')] })
    expect((await slip.plan()).taken?.changes?.length).toBeGreaterThan(0)
    expect(await decided()).toEqual(before)
    await slip.planned()
    expect((await decided())?.decision).not.toBe(before?.decision)
  })

  it('leaves alone what the device shows to be there, and says so beside its digest', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    await slip.read({}, { digests: [rescueDigest('tarn-H2.104.r4')] })
    await slip.say({ 'route.package': NEWEST })
    const rescue = (await slip.plan()).compared.find(({ partition }) => partition === 'rescue')
    expect(rescue).toMatchObject({ write: false, reason: 'same-digest' })
    expect(rescue?.device).toBe(rescue?.image)
    expect(is(await slip.job(), 'compare')).toBe('done')
  })
})

/** The device's own digest of its rescue, over as many bytes as the image has. */
function rescueDigest(name: string) {
  const { size = 0, sha256 = '' } =
    built(name).manifest.images.find(({ role }) => role === 'rescue') ?? {}
  return { partition: 'rescue', size, sha256 }
}

describe('ready', () => {
  it('stands in the way of the start, by name, until everything holds and is signed', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.planned()
    const digest = (await slip.plan()).taken?.digest ?? ''
    const refused = await slip.start(digest)
    expect([refused.code, refused.sentence]).toEqual([
      'slip.not-ready',
      expect.stringContaining('The cable is pushed home'),
    ])
    await slip.sign()
    expect(is(await slip.job(), 'ready')).toBe('done')
    await slip.sees({ batteryPercent: 12 })
    const low = await slip.start(digest)
    expect(low.sentence).toContain('It has the charge this plan needs')
    await slip.sees({ batteryPercent: 80 })
    await slip.read({ loaderVersion: 7 })
    expect((await slip.start(digest)).code).toBe('slip.stale')
  })

  it('cannot be gone round: no run is started but on a slip, with the bench’s secret neither', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.planned()
    const asked = { port: 'P2', package: NEWEST }
    const { body: plan } = await ilse.post<{ digest: string }>('/api/plans', asked)
    const wanted = { ...asked, digest: plan.digest, slip: slip.number }
    expect((await ilse.post('/api/runs', wanted)).status).toBe(404)
    const digest = (await slip.plan()).taken?.digest ?? ''
    const ways = [
      [BENCH_SECRET, 'session.shell'],
      [atShell(bench.address), 'slip.not-ready'],
    ] as const
    for (const [by, code] of ways) {
      const response = await fetch(`${bench.address}${slip.at('start')}`, {
        method: 'POST',
        headers: { ...(await by), 'content-type': 'application/json' },
        body: JSON.stringify({ digest }),
      })
      expect(((await response.json()) as ApiError).code).toBe(code)
    }
    const job = await slip.job()
    expect([job.run, is(job, 'ready')]).toEqual([null, 'open'])
  })

  const failing = async (slip: Slip) =>
    (await slip.ready()).checks.filter(({ holds }) => !holds).map(({ check }) => check)

  it('wants the board looked at where others of weight disagree with its fuses', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.planned()
    await slip.sign()
    expect(await failing(slip)).toEqual([])
    await slip.type('board', 'r5', 'screen')
    expect(await failing(slip)).toEqual(['eye'])
    await slip.say({ 'eye.board': 'as-read' })
    expect(await failing(slip)).toEqual([])
  })

  it('wants the owner’s word for what cannot be promised, and for nothing else', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.planned()
    const asked = async () => (await slip.ready()).signed.map(({ topic }) => topic)
    expect((await asked()).filter((topic) => topic.startsWith('fate.'))).toEqual([])
    await slip.say({ 'survive.photos': 'must' })
    await slip.take()
    expect((await asked()).filter((topic) => topic.startsWith('fate.'))).toEqual([
      'fate.unpromised',
    ])
    const { fates } = (await slip.plan()).taken?.shown ?? { fates: [] }
    expect(fates.find(({ item }) => item === 'photos')).toMatchObject({
      fate: 'unpromised',
      name: 'Photos and files',
    })
    await slip.sign()
    const digest = (await slip.plan()).taken?.digest ?? ''
    await slip.say({ 'fate.unpromised': 'no' })
    expect((await slip.start(digest)).sentence).toContain('nothing can be promised')
    await slip.say({ 'fate.unpromised': 'yes' })
    /* What was signed before the owner took it back was signed for what they no longer wanted. */
    const { signed } = await slip.ready()
    const ended = signed.filter((one) => one.ended === 'against').map(({ topic }) => topic)
    expect(ended).toEqual(expect.arrayContaining(['ready.battery', 'ready.cable']))
    expect(is(await slip.job(), 'ready')).toBe('open')
    await slip.sign()
    expect(is(await slip.job(), 'ready')).toBe('done')
    await slip.say({ 'ready.cable': 'taken-back' })
    expect(is(await slip.job(), 'ready')).toBe('open')
  })

  it('wants everything that Intake asks, whoever asks for the start', async () => {
    const slip = await Slip.open(bench, ilse, 'P3')
    await slip.planned()
    await slip.sign()
    expect(await failing(slip)).toEqual([])
    const { number, at, digest } = { ...slip, digest: (await slip.plan()).taken?.digest ?? '' }
    const bare = await Slip.open(bench, ilse, 'P4')
    await bare.read()
    expect(await failing(bare)).toContain('intake')
    await ilse.post(at('state'), { state: 'waiting', reason: 'for its owner' })
    const [check] = (await slip.ready()).checks
    expect([check?.check, check?.holds, check?.facts['state']]).toEqual(['slip', false, 'waiting'])
    expect((await slip.start(digest)).code).toBe('slip.ended')
    await ilse.post(at('state'), { state: 'open' })
    expect([number, await failing(slip)]).toEqual([number, []])
  })

  it('sees another device in the port, and bytes that were touched on the shelf', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.planned()
    await slip.sign()
    await slip.sees({ board: 'r5' })
    expect(await failing(slip)).toEqual(['same'])
    await slip.sees()
    expect(await failing(slip)).toEqual([])
    const { body } = await ilse.get<{ archives: { name: string; sha256: string }[] }>('/api/shelf')
    const one = body.archives.find(({ name }) => name === 'tarn-H2.104.r4.tar')?.sha256 ?? ''
    const path = join(bench.server.workshop.config.vaultFolder, one.slice(0, 2), one.slice(2))
    const { atime, mtime } = statSync(path)
    utimesSync(path, atime, new Date(mtime.getTime() - 5000))
    expect(await failing(slip)).toEqual(['bytes'])
    utimesSync(path, atime, mtime)
    expect(await failing(slip)).toEqual([])
  })

  it('is signed for one plan: a new one is signed for anew', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.planned()
    await slip.sign()
    await slip.say({ 'route.package': keyOf('tarn-H2.0ZP.r4') })
    await slip.take()
    const anew = (await slip.ready()).signed.filter(({ signed }) => signed)
    /* What was copied stays copied. */
    expect(anew.map(({ topic }) => topic)).toEqual(['ready.backup'])
  })

  it('lets the start through once: what was signed for is not asked of hands again', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.planned()
    await slip.sign()
    const digest = (await slip.plan()).taken?.digest ?? ''
    const run = await slip.start(digest)
    expect(run).toMatchObject({ state: 'wanted', slip: slip.number, asked: null })
    expect((await slip.start(digest)).code).toBe('slip.running')
    const job = await slip.job()
    expect([job.run, is(job, 'write'), is(job, 'plan')]).toEqual([run.id, 'open', 'done'])
    const work = await fetch(`${bench.address}/api/agent/work`, { headers: BENCH_SECRET })
    const { runs } = (await work.json()) as { runs: { id: string; answers: object }[] }
    const answers = runs.find(({ id }) => id === run.id)?.answers ?? {}
    expect(Object.keys(answers).length).toBeGreaterThanOrEqual(4)
  })
})

describe('a slip that was handed back', () => {
  it('has a sheet with what was done, its mark, and the head of the book', async () => {
    const { body } = await ilse.get<{
      facts: { fact: string; holds: boolean | null }[]
    }>('/api/slips/0404/proof')
    expect(body.facts.find(({ fact: one }) => one === 'build')?.holds).toBe(true)
    const { dues } = (await ilse.get<Job>('/api/slips/0404/job')).body
    expect(dues.asked).toEqual([{ what: 'patch', on: '2026-12-30' }])
    const response = await ilse.raw('/api/slips/0404/sheet.pdf', {})
    expect(response.headers.get('content-type')).toBe('application/pdf')
    expect(response.headers.get('content-disposition')).toContain('sheet-0404.pdf')
    const pdf = Buffer.from(await response.arrayBuffer()).toString('latin1')
    expect(pdf.startsWith('%PDF-')).toBe(true)
  })
})
