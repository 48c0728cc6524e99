/** The jobs of the tablets: two slots, tracks that do not mix, a rescue that takes what is pushed. */
import { THINGS } from '@plain-slate/core'
import type { DemoDevice, Line, PackageDraft } from '@plain-slate/demo'
import { FEN_11C, FEN_8B, draftOf } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { deviceOf } from '../bench/world.ts'
import { openShop, person } from './shop.ts'
import { Technician } from './technician.ts'

const ON_TRIAL = 'OST11A260407'
const HALF_MERGED = 'OST8BF260419'
const NOT_THERE = Object.fromEntries(
  ['photos', 'apps', 'settings', ...THINGS].map((one) => [`survive.${one}`, 'not-there']),
)

/** Fen 11 with radio: two builds of its stable track, then one that its maker gives to a few. */
const BUILDS = ['FEN-26.19A-S', 'FEN-26.20A-S', 'FEN-26.21B-S', 'FEN-26.22A-T'] as const
const [FIRST, SECOND, BASE, PILOT] = BUILDS
const WITH_RADIO: Line = { ...FEN_11C, builds: BUILDS }
const increment = (from: string, to: string, more: PackageDraft['more']): PackageDraft =>
  draftOf(
    WITH_RADIO,
    to,
    {
      id: `fen-11C-${from}-to-${to}`,
      title: `${from} to ${to}`,
      kind: 'incremental',
      loaderVersion: 11,
      requires: { exactBuild: from },
      ...more,
    },
    { roles: ['modem', 'kernel', 'variant', 'support', 'main'] },
  )
const STABLE = { release: 8, track: 'S' } as const
const TRIAL = { release: 9, patchDate: '2026-10-14', track: 'T' } as const
const STEPS = [
  increment(FIRST, SECOND, { ...STABLE, patchDate: '2026-09-15' }),
  increment(SECOND, BASE, { ...STABLE, patchDate: '2026-10-01' }),
  increment(BASE, PILOT, { ...TRIAL, channel: 'pilot' }),
]
const TO_PILOT = STEPS[2]?.more.id ?? ''
const BEHIND: DemoDevice = {
  ...deviceOf('OST11C260415'),
  serial: 'OST11C260903',
  name: 'two builds behind',
  line: WITH_RADIO,
  more: {},
}
const CHANGED: DemoDevice = {
  ...BEHIND,
  serial: 'OST11C260913',
  name: 'its owner changed its system',
  modified: ['main'],
  more: { lock: 'open' },
}
/** What stands on them, whole: the one thing that a part can be held against. */
const WHOLE = draftOf(WITH_RADIO, FIRST, {
  ...STABLE,
  id: 'fen-11C-whole',
  patchDate: '2026-09-01',
  loaderVersion: 11,
})
const isDefined = (title: string | undefined) => title !== undefined
/** A preview for Fen 8. */
const PREVIEW_8 = draftOf({ ...FEN_8B, builds: [FIRST, PILOT] }, PILOT, {
  ...TRIAL,
  id: 'fen-8-preview',
  channel: 'preview',
  loaderVersion: 11,
})

let shop: WholeShop
beforeAll(async () => {
  const drafts = [...STEPS, WHOLE, PREVIEW_8]
  const packages = ['fen-FEN-26.19A-S', 'fen-FEN-26.21A-T', 'fen-FEN-26.21B-S']
  const added = drafts.map(({ more }) => more.id ?? '')
  shop = await openShop([...packages, ...added], [ON_TRIAL, HALF_MERGED], {
    drafts,
    devices: [BEHIND, CHANGED],
  })
}, 180_000)
afterAll(() => shop.close())

describe('job 3: a pilot build before its release, two builds behind its base', () => {
  const customer = { device: 'Fen 11', model: 'OSTR-11C', intent: 'preview' } as const
  const answers = { ...NOT_THERE, 'survive.photos': 'must' }

  it('goes step by step from one exact build to the next, with the owner’s word and a lead’s', async () => {
    const { serial } = BEHIND
    const job = await Technician.readsIn(shop, { ...customer, answers }, serial, 'P3')
    const pilot = async () => (await job.routes()).routes.find(({ title }) => title.endsWith(PILOT))
    const found = async () =>
      (await job.why(TO_PILOT)).findings
        .filter(({ verdict }) => verdict !== 'fits')
        .map(({ code }) => code)
    /* From the build that is on it no minute of checking is begun. */
    expect(await found()).toEqual(
      expect.arrayContaining([
        'fit.state.base.other',
        'fit.package.unreleased.early',
        'fit.package.channel.ask',
      ]),
    )
    expect(await pilot()).toBeUndefined()
    const lead = await person(shop, 'Ilse')
    const helper = await person(shop, 'Tavi')
    const key = (await job.routes()).blocked.find(({ title }) => title.endsWith(PILOT))?.package
    const rule = [job.number, 'package.unreleased', key ?? '', 'asked for by its maker'] as const
    expect(await helper.overrules(...rule)).toMatchObject({ code: 'act.refused' })
    await lead.overrules(...rule)
    const road = await pilot()
    expect(road?.first.map(({ title }) => title).filter(isDefined)).toEqual([
      `${FIRST} to ${SECOND}`,
      `${SECOND} to ${BASE}`,
    ])
    const { taken } = await job.takes(road?.route ?? '')
    expect(taken?.shown.fates.map(({ fate }) => fate)).toEqual(['kept', 'kept', 'kept'])
    /* The owner's own word is asked for by the plan. */
    const unsaid = async () => (await job.ready()).signed.filter((one) => !one.signed)
    expect((await unsaid()).map(({ topic }) => topic)).toContain('consent.preview')
    await job.say({ 'consent.preview': 'no' })
    expect(await pilot()).toBeUndefined()
    await job.say({ 'consent.preview': 'yes' })
    await job.takes((await pilot())?.route ?? '')
    await job.signs()
    /* The copy is cut short on its way: that is a lost link, and no word of the tablet's. */
    await job.hands({ kind: 'cut', serial, piece: 1, bytes: 40_960, how: 'cable' })
    const id = await job.starts()
    const lost = await job.follows(id, 'it is lost', ({ losses }) => losses > 0)
    expect([lost.why, lost.steps[lost.step - 1]?.kind]).toEqual([null, 'push'])
    await job.plugsIn()
    const end = await job.ends(id)
    expect([end.word, end.losses]).toEqual(['done', 1])
    const after = await job.read()
    const fact = (name: string) => after.facts.find((one) => one.fact === name)?.value
    expect([fact('build'), fact('track')]).toEqual([PILOT, 'T'])
    expect(after.worse).toEqual([])
    expect(shop.flash(serial).readable.length).toBeGreaterThan(0)
    /* Its updates come by hand only: a day is asked for at the hand back. */
    expect(after.dues.asked.map(({ what }) => what)).toContain('updates')
  }, 180_000)

  it('is refused a tablet whose system was changed, before anything is pushed', async () => {
    const { serial } = CHANGED
    const job = await Technician.readsIn(shop, { ...customer, answers }, serial, 'P4')
    const found = (await job.why('fen-11C-FEN-26.19A-S-to-FEN-26.20A-S')).findings
    expect(found.filter(({ verdict }) => verdict === 'does-not-fit')).toMatchObject([
      { code: 'fit.state.untouched.changed' },
    ])
    /* Its whole build makes it one that a step goes on. */
    const { routes } = await job.routes()
    expect(routes.map(({ route }) => route.split('~')[0])).toEqual(routes.map(() => WHOLE.more.id))
    expect(routes.map(({ title }) => title)).toContain(`${SECOND} to ${BASE}`)
  }, 120_000)
})

describe('job 10: a tablet on trial, back to stable', () => {
  it('is wiped before its first start, its documents saved before, the trial build kept as its way back', async () => {
    const customer = { device: 'Fen 11', model: 'OSTR-11A', intent: 'leave-channel' } as const
    const answers = { ...NOT_THERE, 'survive.photos': 'must' }
    const job = await Technician.readsIn(shop, { ...customer, answers }, ON_TRIAL, 'P5')
    /* Trial to stable keeps nothing: where its documents must stay on it there is no road. */
    const stable = async () =>
      (await job.routes()).routes.filter(({ title }) => title === 'FEN-26.21B-S')
    expect(await stable()).toEqual([])
    await job.say({ 'survive.photos': 'may-go' })
    const [road] = await stable()
    const { taken } = await job.takes(road?.route ?? '')
    const kinds = taken?.shown.steps.map(({ kind }) => kind) ?? []
    const wipes = kinds.flatMap((kind, at) => (kind === 'erase' ? [at] : []))
    expect(wipes.length).toBeGreaterThan(0)
    expect(Math.max(...wipes)).toBeLessThan(kinds.indexOf('first-start'))
    const fates = taken?.shown.fates.map(({ fate }) => fate) ?? []
    expect(fates.every((fate) => fate === 'wiped' || fate === 'unpromised')).toBe(true)
    expect(taken?.shown.wayBack).toBe('FEN-26.21A-T')
    await job.signs()
    const copy = (await job.job()).lines.find(({ topic }) => topic === 'ready.backup')
    expect(copy?.answer).toBe('opens')
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(ON_TRIAL).readable).toEqual([])
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'track')?.value).toBe('S')
    expect(after.care).toBe('ask-owner')
    /* Who puts it back was said before, with how long that takes; it is asked for when the tablet is handed back. */
    const restore = (await job.ready()).signed.find(({ topic }) => topic === 'ready.restore')
    expect(restore).toMatchObject({ answer: 'shop', facts: { mib: expect.any(Number) as number } })
    expect(after.handBack).toEqual(expect.arrayContaining(['back.backup', 'undo.permission']))
    expect(after.handBack).not.toContain('undo.copies')
  }, 120_000)
})

describe('job 21: an update of its own half merged, then the preview', () => {
  it('lets it merge first, has the driver of each mode on the way, falls back until it is good', async () => {
    const serial = HALF_MERGED
    const customer = { device: 'Fen 8', model: 'OSTR-8B', intent: 'preview' } as const
    const answers = { ...NOT_THERE, 'survive.photos': 'may-go', 'history.starts': 'stops' }
    const job = await Technician.takesIn(shop, { ...customer, answers }, serial, 'P1')
    await job.hands({ kind: 'keys', serial, to: 'rescue' })
    const fact = ({ facts }: Awaited<ReturnType<typeof job.read>>, name: string) =>
      facts.find((one) => one.fact === name)?.value
    expect(fact(await job.read(), 'merge')).toBe('merging')
    await job.hands({ kind: 'keys', serial, to: 'off' })
    await job.hands({ kind: 'keys', serial, to: 'loader' })
    await job.read(true)
    const { routes } = await job.routes()
    /* Over a half merge nothing is written and no lock is turned: every road waits for it first. */
    expect(routes.length).toBeGreaterThan(0)
    expect(routes.every(({ route }) => route.startsWith('do wait >'))).toBe(true)

    /* Its rescue speaks by a driver of its own: good in one mode, missing in the next. */
    await job.takes(routes.find(({ route }) => route.endsWith('by push'))?.route ?? '')
    const driver = async () => (await job.ready()).checks.find(({ check }) => check === 'driver')
    expect(await driver()).toMatchObject({ holds: true })
    await job.hands({ kind: 'driver', driver: 'fen-rescue', version: null })
    await expect.poll(driver).toMatchObject({ holds: false })
    await job.takes(routes.find(({ route }) => route.endsWith('by images'))?.route ?? '')
    expect(await driver()).toMatchObject({ holds: true })

    const { taken } = await job.plan()
    const steps = taken?.shown.steps ?? []
    const at = (kind: string) => steps.findIndex((one) => one.kind === kind)
    expect(at('merge')).toBeGreaterThan(0)
    expect(at('merge')).toBeLessThan(at('write'))
    expect(at('write')).toBeLessThan(at('slot'))
    expect(at('slot')).toBeLessThan(at('first-start'))
    await job.signs()
    const before = shop.flash(serial).marks
    const id = await job.starts()
    const end = await job.ends(id)
    expect(end.word).toBe('done')
    expect(shop.flash(serial).marks).toEqual(before)
    const after = await job.read()
    expect([fact(after, 'build'), fact(after, 'slot'), fact(after, 'merge')]).toEqual([
      PILOT,
      'b',
      'none',
    ])
  }, 120_000)
})
