/** Each check of Ready moves with the one thing it rests on, and with nothing beside it. */
import { describe, expect, it } from 'vitest'
import { USUAL_HOUSE } from '../match/house.ts'
import { alder } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import type { Line } from '../terms/line.ts'
import { standingLines } from '../terms/line.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import type { ReadyFacts } from './ready.ts'
import { checksOf, confirmationsOf, mayStart } from './ready.ts'

const linesOf = (more: Readonly<Record<string, string>>, at = 200) =>
  standingLines(Object.entries(more).map(([topic, answer]): Line => ({ topic, answer, at })))
const SIGNED = {
  'ready.backup': 'opens',
  'ready.battery': 'done',
  'ready.cable': 'done',
  'ready.permission': 'done',
  'ready.bench': 'done',
}
const plan = {
  takenAt: 100,
  stale: false,
  reaches: true,
  mode: 'normal',
  needs: 44,
  needsAlone: 44,
  seconds: 1500,
  permission: true,
  fates: ['kept'],
  consents: [],
  fromCard: false,
  keepsOwn: false,
} as const
const pack = { title: 'H2.104.r4', whole: true, published: true, bytes: true }
const facts = (more: Partial<ReadyFacts> = {}): ReadyFacts => ({
  open: true,
  plan,
  agent: true,
  port: 'P2',
  mode: { name: 'normal mode', charges: true },
  percent: 71,
  otherIds: [],
  busy: false,
  cable: { name: 'C', runs: 40, losses: 0 },
  packages: [pack],
  computer: undefined,
  overruled: false,
  doubted: [],
  unasked: [],
  keepData: true,
  leaving: undefined,
  starts: true,
  house: { backup: 'always', cards: 'out', batteryFloor: null },
  idleDrain: 0.2,
  lines: linesOf({}),
  ...more,
})
const broken = (more: Partial<ReadyFacts>) =>
  checksOf(facts(more))
    .filter(({ holds }) => !holds)
    .map(({ check }) => check)

describe('what the system sees', () => {
  it('holds where everything is as it should be', () => {
    expect(broken({})).toEqual([])
  })

  it.each<[string, Partial<ReadyFacts>, readonly string[]]>([
    ['a stale plan', { plan: { ...plan, stale: true } }, ['plan']],
    ['nobody at the ports', { agent: false }, ['agent']],
    ['a slip that is over', { open: false }, ['slip']],
    ['a halt', { lines: linesOf({ 'owner.proof': 'not-shown' }) }, ['slip']],
    ['a rehearsal that ends elsewhere', { plan: { ...plan, reaches: false } }, ['rehearsed']],
    ['a device that is not seen', { port: undefined }, ['seen', 'same', 'free']],
    ['a device of other ids', { otherIds: ['board'] }, ['same']],
    ['a port with a run', { busy: true }, ['free']],
    ['too little charge', { percent: 43 }, ['battery']],
    ['enough charge', { percent: 44 }, []],
    ['a plan that needs more', { plan: { ...plan, needs: 80 } }, ['battery']],
    ['a charge of 3 %', { percent: 3 }, ['battery']],
    ['a charge nobody sees', { percent: undefined }, ['battery']],
    ['a package that is not whole', { packages: [{ ...pack, whole: false }] }, ['package']],
    ['bytes that are gone', { packages: [{ ...pack, bytes: false }] }, ['bytes']],
    ['no package', { packages: [] }, ['package', 'bytes', 'published']],
    ['a package nobody vouches for', { packages: [{ ...pack, published: false }] }, ['published']],
    [
      'one that a lead overruled',
      { packages: [{ ...pack, published: false }], overruled: true },
      [],
    ],
    ['a board nobody looked at', { doubted: ['board'] }, ['eye']],
    ['an owner who was not asked', { unasked: ['consent.preview'] }, ['asked']],
    ['no cable', { cable: undefined }, ['cable']],
    ['a cable that drops', { cable: { name: 'E', runs: 5, losses: 2 } }, ['cable']],
    ['a cable of which little is known', { cable: { name: 'E', runs: 2, losses: 1 } }, []],
    ['nothing that it rests on', { idleDrain: 9 }, []],
  ])('of %s', (_, more, checks) => {
    expect(broken(more)).toEqual(checks)
  })

  it('tells that a lead overruled only where somebody had to', () => {
    const told = (published: boolean, overruled: boolean) =>
      checksOf(facts({ packages: [{ ...pack, published }], overruled })).find(
        ({ check }) => check === 'published',
      )?.facts['overruled']
    expect([told(false, true), told(true, true), told(true, false)]).toEqual([1, 0, 0])
  })

  it('tells what fails from what could not be looked at', () => {
    const unseen = (more: Partial<ReadyFacts>) =>
      checksOf(facts(more))
        .filter(({ seen }) => !seen)
        .map(({ check }) => check)
    expect(unseen({})).toEqual([])
    expect(unseen({ percent: 3, busy: true })).toEqual([])
    const away = { port: undefined, mode: undefined, percent: undefined, cable: undefined }
    expect(unseen(away)).toEqual(['same', 'free', 'mode', 'battery', 'cable'])
    expect(unseen({ cable: undefined })).toEqual(['cable'])
  })

  it('lets nothing idle where it does not charge: there it may wait only when all is signed', () => {
    const mode = { name: 'the loader', charges: false }
    expect(broken({ mode })).toEqual(['mode'])
    expect(broken({ mode: { ...mode, charges: true } })).toEqual([])
    expect(broken({ mode, lines: linesOf(SIGNED) })).toEqual([])
  })
})

describe('what the computer tells', () => {
  const computer = {
    drivers: [{ name: 'the handheld driver', is: 'there', behind: 0, modes: 'the loader' }],
    rivals: [],
    powerSaving: false,
    sleepMinutes: null,
    freeMiB: 4096,
  } as const
  const told = (more: object) => broken({ computer: { ...computer, ...more } })
  const driver = (is: string) => ({ drivers: [{ ...computer.drivers[0], is, behind: 2 }] })
  it.each<[string, object, readonly string[]]>([
    ['a computer with all it needs', {}, []],
    ['a driver that is missing', driver('missing'), ['driver']],
    ['a driver that is too old', driver('too-old'), ['driver']],
    ['a driver that is older than the newest', driver('old'), []],
    ['another program at the port', { rivals: [{ port: 'P2', program: 'x' }] }, ['rival']],
    ['a port that is put to sleep', { powerSaving: true }, ['power']],
    ['sleep before the plan may end', { sleepMinutes: 25 }, ['sleep']],
    ['sleep after it', { sleepMinutes: 26 }, []],
    ['a full disk', { freeMiB: 511 }, ['disk']],
    ['a disk with room', { freeMiB: 512 }, []],
  ])('of %s', (_, more, checks) => {
    expect(told(more)).toEqual(checks)
  })

  it('says how old a driver is, and asks nobody what the computer tells', () => {
    const facts_ = (more: object) =>
      checksOf(facts({ computer: { ...computer, ...more } })).find(
        ({ check }) => check === 'driver',
      )?.facts
    expect(facts_(driver('old'))).toMatchObject({ old: 'the handheld driver', behind: 2 })
    expect(facts_({})).toMatchObject({ old: '', behind: 0 })
    const asked = (more: Partial<ReadyFacts>) =>
      confirmationsOf(facts(more)).map(({ topic }) => topic)
    expect(asked({})).toContain('ready.bench')
    expect(asked({ computer })).not.toContain('ready.bench')
    expect(checksOf(facts()).map(({ check }) => check)).not.toContain('driver')
  })
})

describe('what a person makes sure of', () => {
  const open = (more: Partial<ReadyFacts>) =>
    confirmationsOf(facts(more))
      .filter(({ signed }) => !signed)
      .map(({ topic }) => topic)

  it('is signed for this plan: an older signature is none', () => {
    expect(open({ lines: linesOf(SIGNED) })).toEqual([])
    const { 'ready.backup': _, ...forThePlan } = SIGNED
    expect(open({ lines: linesOf(SIGNED, 99) })).toEqual(Object.keys(forThePlan))
    expect(open({ lines: linesOf(SIGNED), plan: { ...plan, takenAt: 201 } })).toEqual(
      Object.keys(forThePlan),
    )
    expect(open({ lines: linesOf(SIGNED), plan: undefined })).toHaveLength(3)
  })

  it('asks its owner again for what these packages need their word for', () => {
    const asks = (consents: readonly ('mark' | 'preview')[], lines = {}) =>
      open({ plan: { ...plan, consents }, lines: linesOf({ ...SIGNED, ...lines }) })
    expect(asks([])).toEqual([])
    expect(asks(['preview', 'mark'])).toEqual(['consent.preview', 'consent.mark'])
    expect(asks(['preview'], { 'consent.preview': 'yes' })).toEqual([])
    expect(asks(['preview'], { 'consent.preview': 'no' })).toEqual(['consent.preview'])
    const before = new Map([...linesOf(SIGNED), ...linesOf({ 'consent.preview': 'yes' }, 99)])
    expect(open({ plan: { ...plan, consents: ['preview'] }, lines: before })).toEqual([
      'consent.preview',
    ])
  })

  it('asks for a backup where data must survive, and for cards where some came', () => {
    expect(open({ keepData: false })).not.toContain('ready.backup')
    expect(open({ lines: linesOf({ 'accessory.sim': 'here' }) })).toContain('ready.out')
    expect(open({ lines: linesOf({ 'accessory.case': 'here' }) })).not.toContain('ready.out')
  })

  it('asks who puts a copy back where something is lost, and tells how long that takes', () => {
    const lost = { ...plan, fates: ['wiped' as const] }
    const made = linesOf({ 'ready.backup': 'opens' })
    const restore = { mib: 512, low: 15, high: 22 }
    const asked = (more: Partial<ReadyFacts>) =>
      confirmationsOf(facts({ plan: lost, lines: made, restore, ...more })).find(
        ({ topic }) => topic === 'ready.restore',
      )
    expect(asked({})).toMatchObject({ answers: ['shop', 'owner'], facts: restore, signed: false })
    expect(asked({ plan })).toBeUndefined()
    expect(asked({ lines: linesOf({ 'ready.backup': 'not-wanted' }) })).toBeUndefined()
    /* They may go from it, and there is a copy all the same. */
    expect(asked({ keepData: false })).toBeDefined()
    expect(asked({ lines: linesOf({}) })).toBeUndefined()
  })

  it('asks of one that runs what can be done only then, and of one that does not start no copy', () => {
    const leaving: ReadyFacts['leaving'] = {
      family: tarn,
      mode: 'normal',
      here: true,
      inUse: true,
      keepData: true,
      things: [],
      house: { ...USUAL_HOUSE },
      plan,
      looked: false,
      stayedAt: undefined,
      screenLock: undefined,
      percent: 71,
      lines: linesOf({}),
    }
    const waived = { ...leaving, lines: linesOf({ 'ready.leave': 'waived' }) }
    const tally = (more: Partial<ReadyFacts>) =>
      checksOf(facts(more)).find(({ check }) => check === 'tally')?.holds
    expect(tally({ leaving })).toBe(false)
    expect(tally({ leaving: { ...leaving, looked: true } })).toBe(true)
    expect(tally({ leaving: waived })).toBe(true)
    expect(tally({})).toBe(undefined)
    const wiped = { ...leaving, family: alder, plan: { ...plan, fates: ['wiped'] as const } }
    const before = { ...wiped, house: { ...USUAL_HOUSE, accounts: 'before' as const } }
    expect(open({ leaving: before })).toContain('ready.accounts')
    expect(open({ leaving: wiped })).not.toContain('ready.accounts')
    const own = { ...leaving, plan: { ...plan, keepsOwn: true } }
    expect(open({ leaving: own })).toContain('ready.addons')
    expect(open({ leaving })).not.toContain('ready.addons')
    const first = confirmationsOf(facts({ leaving: waived }))[0]
    expect(first).toMatchObject({ topic: 'ready.backup', answer: 'waived', signed: true })
    const dead = confirmationsOf(facts({ starts: false }))[0]
    expect(dead?.answers).toEqual(['impossible', 'not-wanted'])
  })

  it('takes a copy that opens and an owner who wants none as two answers', () => {
    const backup = confirmationsOf(facts()).find(({ topic }) => topic === 'ready.backup')
    expect(backup?.answers).toEqual(['opens', 'not-wanted'])
    const answer = (said: string) =>
      confirmationsOf(facts({ lines: linesOf({ 'ready.backup': said }) })).find(
        ({ topic }) => topic === 'ready.backup',
      )
    expect(answer('not-wanted')).toMatchObject({ answer: 'not-wanted', signed: true })
  })

  it('asks for the link permission only where a step needs it', () => {
    expect(open({ plan: { ...plan, permission: false } })).not.toContain('ready.permission')
  })

  it('asks the owner’s word for each fate that is not kept, and for none beside', () => {
    const fates = (...fates: readonly Fate[]) =>
      open({ plan: { ...plan, fates }, lines: linesOf(SIGNED) })
    expect(fates('kept')).toEqual([])
    expect(fates('wiped')).toEqual(['fate.wiped', 'ready.restore'])
    expect(fates('kept', 'unreadable', 'unpromised')).toEqual([
      'fate.unreadable',
      'fate.unpromised',
      'ready.restore',
    ])
    const signed = { ...SIGNED, 'ready.restore': 'shop' }
    const wiping = { plan: { ...plan, fates: ['wiped'] as const } }
    expect(open({ ...wiping, lines: linesOf({ ...signed, 'fate.wiped': 'yes' }) })).toEqual([])
    expect(open({ ...wiping, lines: linesOf({ ...signed, 'fate.wiped': 'no' }) })).toEqual([
      'fate.wiped',
    ])
  })
})

describe('the gate', () => {
  const tavi = { id: 'tavi', role: 'technician' } as const
  const signed = facts({ lines: linesOf(SIGNED) })

  it('is open when every check holds and every word is signed, whoever may start runs', () => {
    expect(mayStart(signed, tavi)).toEqual([])
    expect(mayStart(signed, 'shell')).toEqual([])
    expect(mayStart(signed, { id: 'juno', role: 'trainee' })).toEqual(['check.role'])
  })

  it('says everything that stands in the way', () => {
    const at = facts({ percent: 3, open: false, plan: { ...plan, stale: true, fates: ['wiped'] } })
    expect(mayStart(at, tavi)).toEqual([
      'check.slip',
      'check.plan',
      'check.battery',
      'topic.fate.wiped',
      ...Object.keys(SIGNED).map((topic) => `topic.${topic}`),
    ])
  })

  it('is shut by any one check, and by any one word', () => {
    for (const topic of Object.keys(SIGNED)) {
      const { [topic as keyof typeof SIGNED]: _, ...rest } = SIGNED
      expect(mayStart(facts({ lines: linesOf(rest) }), tavi)).toEqual([`topic.${topic}`])
    }
  })
})

describe('what the house decided of Ready', () => {
  const topics = (more: Partial<ReadyFacts>) =>
    confirmationsOf(facts(more)).map(({ topic }) => topic)
  const lines = linesOf({ 'accessory.sim': 'here', 'accessory.card': 'none' })
  const card = linesOf({ 'accessory.sim': 'none', 'accessory.card': 'here' })
  const lost = { ...plan, fates: ['wiped'] as const }

  it('asks for a copy always, or only where something is lost', () => {
    const backup = (house: ReadyFacts['house'], of: ReadyFacts['plan']) =>
      topics({ house, plan: of }).includes('ready.backup')
    const only = { backup: 'lost', cards: 'out', batteryFloor: null } as const
    expect(backup({ ...only, backup: 'always' }, plan)).toBe(true)
    expect([backup(only, plan), backup(only, lost)]).toEqual([false, true])
    expect(topics({ keepData: false, plan: lost })).not.toContain('ready.backup')
  })

  it('has SIM and card taken out, or left in; the card that is read from stays', () => {
    const out = (more: Partial<ReadyFacts>) => topics(more).includes('ready.out')
    expect([
      out({ lines }),
      out({ lines, house: { backup: 'always', cards: 'in', batteryFloor: null } }),
    ]).toEqual([true, false])
    const fromCard = { ...plan, fromCard: true }
    expect([out({ lines: card }), out({ lines: card, plan: fromCard })]).toEqual([true, false])
    expect(out({ lines, plan: fromCard })).toBe(true)
  })
})
