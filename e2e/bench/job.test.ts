/**
 * Intake, readings and firmware of a slip through the server: every claim moves with the input it rests
 * on, and stays when something beside it changes.
 */
import type { ApiError, Job } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'
import { FACTS } from '@plain-slate/core'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { LEAD_FACTS, agentSees } from '@plain-slate/server/testing/agent'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { NEWEST, Slip, fact, is, keyOf, shelvedBench } from './job-slip.ts'

/** For the lead device, unread in its loader: an update first, the build it has last. */
const ROUTES = [NEWEST, keyOf('tarn-H2.0ZP.r4'), keyOf('tarn-H2.0ZC.r4')]

let bench: Bench
let ilse: Browser
let juno: Browser
beforeAll(async () => {
  bench = await shelvedBench()
  ilse = await bench.at('Ilse')
  juno = await bench.at('Juno')
})
afterAll(() => bench.close())

describe('lines', () => {
  it('are said by anybody who works here, under their name, and the newest stands', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.say({ 'owner.account': 'absent' }, juno)
    const job = await slip.say({ 'owner.account': 'owner-able' })
    const lines = job.lines.filter(({ topic }) => topic === 'owner.account')
    expect(lines).toMatchObject([{ answer: 'owner-able', by: 'Ilse Maro' }])
  })

  it('that nobody knows, or answers that are none, are refused and put nothing down', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    expect((await slip.say({ 'owner.shoe-size': '42' })).code).toBe('slip.line')
    expect((await slip.say({ 'owner.proof': 'perhaps', 'owner.account': 'absent' })).code).toBe(
      'slip.line',
    )
    expect((await slip.job()).lines).toEqual([])
  })

  it('that the same person says again are put down once', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    const works = { 'function.screen': 'works', 'function.touch': 'works' }
    await slip.say(works)
    await slip.say(works)
    const { body } = await ilse.get<{ act: string }[]>(`/api/slips/${slip.number}/history`)
    expect(body.filter(({ act }) => act === 'slip.line')).toHaveLength(2)
    await slip.say(works, juno)
    const again = await ilse.get<{ act: string }[]>(`/api/slips/${slip.number}/history`)
    expect(again.body.filter(({ act }) => act === 'slip.line')).toHaveLength(4)
  })

  it('that want a reason, or a lead, are taken with it and from one alone', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    expect((await slip.say({ 'decided.first-start': 'accepted' })).code).toBe('slip.reason')
    const topic = 'overrule.unpublished'
    const lines = [{ topic, answer: NEWEST, note: 'the maker’s page is away' }]
    const byJuno = await juno.post<ApiError>(slip.at('lines'), { lines })
    expect(byJuno.body.code).toBe('act.refused')
    const byIlse = await ilse.post<{ lines: object[] }>(slip.at('lines'), { lines })
    expect(byIlse.body.lines).toMatchObject([{ topic, note: 'the maker’s page is away' }])
  })

  it('that end the job end the slip, and then nothing more is said on it', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.say({ 'condition.cell': 'damaged' })
    const { body } = await ilse.get<{ state: string }>(`/api/slips/${slip.number}`)
    expect(body.state).toBe('stopped')
    expect((await slip.say({ 'condition.cell': 'sound' })).code).toBe('slip.ended')
    const asked = { port: slip.port, deep: true }
    expect((await ilse.post<ApiError>(slip.at('read'), asked)).body.code).toBe('slip.ended')
    expect((await slip.take('0'.repeat(64))).code).toBe('slip.ended')
    await ilse.post(slip.at('state'), { state: 'open' })
    expect(is(await slip.say({ 'condition.cell': 'sound' }), 'intake')).toBe('open')
  })
})

describe('readings', () => {
  it('over the link settle what the job needs, with who read it and how far it is trusted', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    const job = await slip.read({}, { tally: { items: 9, bytes: 4096, opens: true } })
    expect(is(job, 'readings')).toBe('waits')
    expect(fact(job, 'board')).toMatchObject({
      kind: 'settled',
      value: 'r4',
      claims: [{ weight: 12, sources: [{ source: 'link', trust: 12, by: 'Ilse Maro' }] }],
    })
    expect(job.tally.before).toMatchObject({ items: 9, bytes: 4096, opens: true })
    expect(job.build?.map(({ text }) => text)).toEqual(['H2', '0ZC', 'r4'])
  })

  it('of the fuses settle a fact against a label, and are doubted by more than that', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    await slip.read()
    const housing = await slip.type('model', 'BRAK-H2', 'label')
    expect(fact(housing, 'model')).toMatchObject({ kind: 'settled', value: 'BRAK-H2K' })
    expect([housing.at, housing.doubted]).toEqual(['firmware', []])
    const doubted = await slip.type('model', 'BRAK-H2', 'screen')
    expect(fact(doubted, 'model')).toMatchObject({ kind: 'settled', value: 'BRAK-H2K' })
    expect(doubted.doubted).toEqual(['model'])
    expect((await slip.say({ 'eye.board': 'as-read' })).doubted).toEqual([])
    expect((await slip.type('model', 'BRAK-H2', 'settings')).doubted).toEqual(['model'])
  })

  it('by somebody’s word alone are told, and settle nothing that could kill', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    for (const [name, value] of Object.entries(LEAD_FACTS))
      if (FACTS.some((one) => one === name))
        await slip.type(name as 'model', String(value), 'person')
    const job = await slip.job()
    expect([fact(job, 'board')?.kind, fact(job, 'board')?.value]).toEqual(['told', 'r4'])
    expect(job.at).toBe('readings')
    expect((await slip.routes()).routes).toEqual([])
  })

  it('typed with look-alike characters are refused with what was meant', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    const build = await slip.type('build', 'H2.OZC.r4', 'settings')
    expect(build.sentence).toContain('It breaks off at character 4: its counter is to be 3 of 0123')
    expect([build.code, build.remedy]).toEqual([
      'slip.reading',
      expect.stringContaining('Perhaps it is H2.0ZC.r4, H2.0ZP.r4.'),
    ])
    expect((await slip.type('model', 'BRAK-HZK', 'label')).code).toBe(undefined)
    expect((await slip.type('floor', 'five', 'screen')).code).toBe('slip.reading')
    expect((await slip.type('floor', '5', 'screen')).code).toBe(undefined)
  })

  it('put down by hand are taken back, on record; what the device said is not', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.read({ floor: 4 })
    const floor = (job: Job) => fact(job, 'floor')?.value
    expect(floor(await slip.type('floor', '44', 'screen'))).toBe(44)
    const typed = fact(await slip.job(), 'floor')?.claims.flatMap(({ value, sources }) =>
      sources.map((one) => [value, one.source, one.typed]),
    )
    expect(typed).toEqual(
      expect.arrayContaining([
        [44, 'screen', true],
        [4, 'link', false],
      ]),
    )
    expect((await slip.back('floor', 45, 'screen')).code).toBe('slip.no-reading')
    expect(floor(await slip.job())).toBe(44)
    expect(floor(await slip.back('floor', 44, 'screen'))).toBe(4)
    expect((await slip.back('floor', 44, 'screen')).code).toBe('slip.no-reading')
    expect((await slip.back('floor', 4, 'link')).code).toBe('input.invalid')
    const { body: history } = await ilse.get<{ act: string }[]>(slip.at('history'))
    const acts = history.map(({ act }) => act)
    expect(acts).toEqual(expect.arrayContaining(['slip.reading', 'slip.reading-back']))
    /* Typed again, it stands again. */
    expect(floor(await slip.type('floor', '44', 'screen'))).toBe(44)
  })

  it('say which packages cannot be told without them', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    for (const [name, value] of Object.entries(LEAD_FACTS))
      if (name !== 'board' && FACTS.some((one) => one === name))
        await slip.type(name as 'model', String(value), 'screen')
    const job = await slip.job()
    expect(fact(job, 'board')?.holdsUp).toContain('H2.104.r4')
    expect(fact(job, 'carrier')?.holdsUp).toEqual([])
  })

  it('of another device are refused: of one read before, and of one another slip claims', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    const other = await Slip.open(bench, ilse, 'P2')
    await slip.read()
    await other.read()
    await agentSees(bench.address, 'P1', { serial: 'TRN0000000001', mode: 'normal' })
    const changed = await ilse.post<ApiError>(slip.at('read'), { port: 'P1' })
    expect(changed.body.code).toBe('slip.other-device')
    const claimed = await ilse.post<ApiError>(slip.at('read'), { port: 'P2' })
    expect(claimed.body.code).toBe('slip.claimed')
    const ports = (await slip.job()).ports.map(({ name }) => name)
    expect(ports).not.toContain('P2')
  })
})

describe('firmware', () => {
  it('offers what fits, best first, and gives every other package its reason', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    await slip.read()
    const { routes, left, naming } = await slip.routes()
    expect(routes.map((one) => one.package)).toEqual(ROUTES)
    expect(routes[0]).toMatchObject({
      first: [{ kind: 'package', title: 'loader 7' }],
      wayBack: 'H2.0ZC.r4',
    })
    expect(naming).toBe(5)
    const reasons = Object.fromEntries(left.map((one) => [one.package, one]))
    expect(reasons[keyOf('tarn-H2.104.r5')]?.reason?.code).toBe('fit.identity.board.not')
    expect(reasons[keyOf('tarn-loader-7-r4')]?.reason?.code).toMatch(/^fit\./)
  })

  it.each<[string, Partial<DeviceFacts>, readonly string[], boolean]>([
    ['the floor', { floor: 7 }, [], true],
    ['the board', { board: 'r5' }, [], true],
    ['the loader', { loaderVersion: 7 }, ROUTES, true],
    ['the carrier', { carrier: 'N' }, ROUTES, false],
  ])('follows %s', async (_, more, packages, moves) => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    await slip.read()
    const before = JSON.stringify((await slip.routes()).routes)
    await slip.read(more)
    const after = await slip.routes()
    const digests = after.routes.map((one) => one.package)
    if (more.board === undefined) expect(digests).toEqual(packages)
    else expect(digests).not.toContain(NEWEST)
    expect(JSON.stringify(after.routes) !== before).toBe(moves)
  })

  it('draws the ruler from the build that was read', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    await slip.read()
    const marks = async () => (await slip.routes()).routes[0]?.ruler?.parts.map(({ mark }) => mark)
    expect(await marks()).toEqual(['same', 'deciding', 'same'])
  })
})
