/** What a master technician says of a route that ends short of the wish, and of what would bring a way to it. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Case } from '../match/rule.ts'
import { alder, benchOf, caseOf, deviceIdOf, packageOf } from '../testing/families.ts'
import { said } from '../testing/judged.ts'
import { obstaclesOf } from './obstacles.ts'
import { routesTo } from './route.ts'

const build = (name: string, more: Partial<Manifest> = {}) =>
  packageOf(alder, {
    model: 'CORV-5M',
    board: 'C',
    build: name,
    release: 20,
    patchDate: '2026-09-01',
    generation: 3,
    requires: { minLoader: 0 },
    ...more,
  })
const on = build('20-2636.0-HO')
const sold = (carrier: string, name: string) => {
  const made = build(name)
  return { ...made, targets: made.targets.map((one) => ({ ...one, carriers: [carrier] })) }
}

function missesOn(shelf: readonly Manifest[], more: Partial<Case>): Record<string, string> {
  const bench = benchOf({ family: alder, on, shelf })
  const [first] = shelf
  if (first === undefined) throw new Error('an empty shelf')
  const { shelved: _, ...at } = caseOf(bench, first, { keepData: false, ...more })
  const { mode, permission } = bench.device
  const { routes } = routesTo({ start: { at, mode, permission } })
  return Object.fromEntries(routes.map((one) => [one.shelved.manifest.build, one.misses.join(' ')]))
}

/** What else is said at the counter of a phone whose owner has everything off it. */
const COUNTER = { 'owner.account': 'absent', 'owner.managed': 'not-managed' }

describe('a route ends short of the wish', () => {
  it('where another variant is wanted and it stays the one it is', () => {
    const shelf = [sold('O', '20-2640.1-HO'), sold('N', '20-2640.1-HN')]
    const misses = missesOn(shelf, { intent: 'variant-change' })
    expect(misses).toEqual({
      '20-2640.1-HN': '',
      '20-2640.1-HO': 'variant',
      '20-2636.0-HO': 'variant',
    })
  })

  it('where the variant or the build that was named is another one, which comes first', () => {
    const shelf = [sold('N', '20-2640.1-HN'), sold('S', '20-2638.1-HS'), on]
    const named = (lines: Record<string, string>, intent: Case['intent'] = 'variant-change') =>
      missesOn(shelf, { intent, lines: said({ ...COUNTER, ...lines }).lines })
    expect(Object.entries(named({ 'want.row': 'HI/S' }))).toEqual([
      ['20-2638.1-HS', ''],
      ['20-2640.1-HN', 'variant'],
      ['20-2636.0-HO', 'variant'],
    ])
    expect(named({ 'want.row': 'HI/N' })['20-2640.1-HN']).toBe('')
    expect(named({ 'want.build': '20-2638.1-HS' })).toMatchObject({
      '20-2638.1-HS': '',
      '20-2640.1-HN': 'build',
    })
    expect(named({ 'want.build': 'any' })['20-2640.1-HN']).toBe('')
    /* A variant is named where another one is wanted, and nowhere else. */
    expect(named({ 'want.row': 'HI/S' }, 'restore')).toEqual(named({}, 'restore'))
    expect(named({ 'use.region': 'here' })).toEqual(named({}))
  })

  it('where a build was named that is the other way than the wish: nothing reaches both', () => {
    const shelf = [on, build('20-2640.1-HO', { patchDate: '2026-10-01' })]
    const lines = said({ ...COUNTER, 'want.build': '20-2636.0-HO' }).lines
    expect(missesOn(shelf, { intent: 'update', lines })).toEqual({
      '20-2640.1-HO': 'build',
      '20-2636.0-HO': 'release',
    })
  })

  it('and in a house that leaves each device the variant it was bought as, nothing else is a way', () => {
    const shelf = [sold('O', '20-2640.1-HO'), sold('N', '20-2640.1-HN')]
    const house = { ...USUAL_HOUSE, variant: 'bought' } as const
    const misses = missesOn(shelf, { intent: 'variant-change', house })
    expect(misses).toEqual({ '20-2640.1-HO': 'variant', '20-2636.0-HO': 'variant' })
  })

  it('where an earlier build is wanted: the same falls further short than an older one of its release', () => {
    const shelf = [on, build('20-2630.0-HO', { patchDate: '2026-07-01' })]
    const misses = missesOn(shelf, { intent: 'downgrade' })
    expect(misses).toEqual({ '20-2630.0-HO': 'release', '20-2636.0-HO': 'release patch-date' })
    expect(Object.keys(misses)[0]).toBe('20-2630.0-HO')
  })

  it('where the channel is to be left and its build is of one', () => {
    const preview = build('20-2640.1-HO', { channel: 'preview', patchDate: '2026-10-01' })
    const misses = missesOn([on, preview], { intent: 'leave-channel' })
    expect(misses).toEqual({ '20-2636.0-HO': '', '20-2640.1-HO': 'release' })
  })
})

describe('of two packages of one build', () => {
  it('the one that costs less comes first, whatever it is called', () => {
    const cheap = build('20-2640.1-HO', { id: 'z cheap' })
    const dear = build('20-2640.1-HO', { id: 'a dear', effects: { erases: ['customer'] } })
    const bench = benchOf({ family: alder, on, shelf: [dear, cheap] })
    const { shelved: _, ...at } = caseOf(bench, cheap, { keepData: false })
    const { mode, permission } = bench.device
    const [first] = routesTo({ start: { at, mode, permission } }).routes
    expect(first?.shelved.manifest.id).toBe('z cheap')
  })
})

describe('service software', () => {
  const software = build('20-2636.9-HO', { id: 'service', kind: 'service' })
  const bench = benchOf({ family: alder, on, shelf: [software] })
  const blockers = (more: Partial<Case> = {}) => {
    const { shelved: _, ...at } = caseOf(bench, software, { intent: 'service', ...more })
    const { mode, permission } = bench.device
    return obstaclesOf({ at, mode, permission }).map(({ obstacles }) =>
      obstacles.map(({ finding }) => `${finding.rule} ${finding.remedy?.kind ?? ''}`),
    )
  }
  const permit = {
    id: 'PM-1',
    device: deviceIdOf(alder),
    scope: 'service',
    until: '2026-12-01',
  } as const

  it('has a way once its maker’s permit is brought', () => {
    expect(blockers()).toEqual([['permit.here permit']])
  })

  it('has one once another permit is brought, where this one is for another device, over or spent', () => {
    expect(blockers({ permit: { ...permit, device: 'ANOTHER' } })).toEqual([
      ['permit.device permit'],
    ])
    expect(blockers({ permit: { ...permit, until: '2026-01-01' } })).toEqual([
      ['permit.day permit'],
    ])
    const history = { serials: [], permitsUsed: ['PM-1'] }
    expect(blockers({ permit, history })).toEqual([['permit.spent permit']])
  })
})
