/** Each reason for the order of a plan moves with the one thing it rests on, and with nothing beside it. */
import { describe, expect, it } from 'vitest'
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { makePlan } from './make-plan.ts'
import { routesTo } from './route.ts'
import type { Case } from '../match/rule.ts'
import { case0417 } from '../testing/cases.ts'
import { benchOf, caseOf, fen, packageOf } from '../testing/families.ts'
import { archived, newest, proven, shelf } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { OrderReason } from '../plan/order.ts'
import { orderOf } from '../plan/order.ts'
import { packsOf } from '../plan/moves.ts'
import { planOf } from '../plan/plan.ts'

function leadOrder(more: Partial<Case> = {}): readonly OrderReason[] {
  const at = case0417(more)
  const made = makePlan({ at, mode: 'normal', permission: true })
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  return orderOf(made.value, at.family)
}
const codes = (order: readonly OrderReason[]) => order.map(({ code }) => code)
const factsOf = (order: readonly OrderReason[], code: string) =>
  order.find((one) => one.code === code)?.facts
const family = (more: Partial<Family>): Partial<Case> => ({ family: { ...tarn, ...more } })
const aim = (more: Partial<Manifest>): Partial<Case> => {
  const manifest = { ...newest, ...more }
  const others = shelf.filter(({ manifest: { id } }) => id !== newest.id)
  return { shelved: proven(manifest), shelf: [...others, proven(manifest)] }
}

describe('the order of the lead plan', () => {
  it('has the loader first because the build asks for it, its parts and restarts as the family says', () => {
    const order = leadOrder()
    expect(codes(order)).toEqual(['loader-first', 'parts', 'restarts'])
    expect(factsOf(order, 'loader-first')).toEqual({
      first: 'loader 7',
      title: 'H2.104.r4',
      least: 7,
    })
  })

  it('says nothing of a loader that is not asked for', () => {
    expect(codes(leadOrder(aim({ requires: {} })))).not.toContain('loader-first')
  })

  it('follows the family: another order of parts, no restart between them', () => {
    const turned = family({ writeOrder: [...tarn.writeOrder].reverse() })
    expect(factsOf(leadOrder(turned), 'parts')).not.toEqual(factsOf(leadOrder(), 'parts'))
    expect(codes(leadOrder(family({ restartAfter: [] })))).not.toContain('restarts')
  })

  it('has what is erased come last, where anything is', () => {
    const wiped = leadOrder({ ...aim({ effects: { erases: ['customer'] } }), keepData: false })
    expect(codes(wiped)).toContain('erase-last')
  })

  it('stays where a title of its family, or a sentence of a way, is another', () => {
    expect(leadOrder(family({ name: 'another' } as Partial<Family>))).toEqual(leadOrder())
  })
})

describe('the order of a tablet’s plan', () => {
  const build = (name: string, more: Partial<Manifest> = {}) => {
    const made = packageOf(fen, {
      model: 'OSTR-11A',
      board: 'g1',
      build: name,
      release: 8,
      patchDate: '2026-09-01',
      generation: 4,
      track: 'S',
      loaderVersion: 11,
      ...more,
    })
    return archived({ ...made, images: made.images.filter(({ role }) => role !== 'modem') })
  }
  const on = build('FEN-26.20B-S')
  const next = build('FEN-26.21B-S', { patchDate: '2026-10-01' })
  const stepOn: Manifest = archived({
    ...build('FEN-26.22B-S', { patchDate: '2026-10-10' }),
    id: 'a step',
    title: 'a step',
    kind: 'incremental',
    requires: { exactBuild: 'FEN-26.21B-S' },
  })
  const order = (target: Manifest, merge: 'none' | 'merging', way?: string) => {
    const bench = benchOf({ family: fen, on, shelf: [next, stepOn], more: { merge } })
    const { shelved, ...at } = caseOf(bench, target, { keepData: true })
    const start = { at, mode: bench.device.mode, permission: bench.device.permission }
    const { routes } = routesTo({ start, aims: [shelved.key] })
    const route = routes.find(
      ({ moves }) => way === undefined || packsOf(moves).every((one) => one.way === way),
    )
    const made = planOf(start, route?.moves ?? [])
    if (!made.ok) throw new Error(JSON.stringify(made.refusal))
    return orderOf(made.value, fen)
  }

  it('tries the other slot last, and waits for an update of its own first', () => {
    expect(codes(order(next, 'none', 'images'))).toEqual(['parts', 'slot-last'])
    expect(codes(order(next, 'merging', 'images'))).toEqual(['merge-first', 'parts', 'slot-last'])
  })

  it('has it emptied after an install that it could not open its data under', () => {
    const trial = build('FEN-26.21A-T', { release: 9, track: 'T', patchDate: '2026-09-01' })
    const bench = benchOf({ family: fen, on: trial, shelf: [next] })
    const { shelved, ...at } = caseOf(bench, next, { keepData: false, intent: 'leave-channel' })
    const start = { at, mode: bench.device.mode, permission: bench.device.permission }
    const made = planOf(start, [{ pack: shelved.key, way: 'push' }])
    if (!made.ok) throw new Error(JSON.stringify(made.refusal))
    expect(codes(orderOf(made.value, fen))).toEqual(['wiped-start'])
    expect(codes(order(next, 'none', 'push'))).toEqual([])
  })

  it('has the base go on before the step from it', () => {
    expect(factsOf(order(stepOn, 'none'), 'base-first')).toEqual({
      first: next.title,
      title: 'a step',
      build: 'FEN-26.21B-S',
    })
  })
})
