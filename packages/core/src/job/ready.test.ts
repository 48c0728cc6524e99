/** Each check of Ready moves with the one thing it rests on, and with nothing beside it. */
import { describe, expect, it } from 'vitest'
import { SIGNED, facts, linesOf, pack, plan } from '../testing/ready.ts'
import type { ReadyFacts } from './ready.ts'
import { checksOf, confirmationsOf, mayStart } from './ready.ts'

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
    ['a slip that is over', { state: 'closed' }, ['slip']],
    ['a slip that waits on somebody', { state: 'waiting' }, ['slip']],
    ['an Intake of which one thing was never said', { intakeOpen: 1 }, ['intake']],
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
    ['no cable that anybody named', { cable: undefined }, []],
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

describe('the gate', () => {
  const tavi = { id: 'tavi', role: 'technician' } as const
  const signed = facts({ lines: linesOf(SIGNED) })

  it('is open when every check holds and every word is signed, whoever may start runs', () => {
    expect(mayStart(signed, tavi)).toEqual([])
    expect(mayStart(signed, 'shell')).toEqual([])
    expect(mayStart(signed, { id: 'juno', role: 'trainee' })).toEqual(['check.role'])
  })

  it('says everything that stands in the way', () => {
    const at = facts({
      percent: 3,
      state: 'stopped',
      plan: { ...plan, stale: true, fates: ['wiped'] },
    })
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
