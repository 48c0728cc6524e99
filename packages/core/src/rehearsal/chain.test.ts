/** A chain of two steps after a loader, as a device meets it: searched, planned, run. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { packsOf } from '../plan/moves.ts'
import { planOf } from '../plan/plan.ts'
import { routesTo } from '../route/route.ts'
import { benchOf, caseOf, fen, packageOf } from '../testing/families.ts'
import { run } from '../testing/installs.ts'
import { archived } from '../testing/packages.ts'

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
const roles = ['kernel', 'variant', 'support', 'main']
const stepTo = (from: string, to: string): Manifest => {
  const whole = build(to, { patchDate: '2026-10-01' })
  const { loaderVersion: _, ...rest } = whole
  return archived({
    ...rest,
    id: `${from} to ${to}`,
    kind: 'incremental',
    requires: { exactBuild: from, minLoader: 12 },
    images: whole.images.filter(({ role }) => roles.includes(role)),
  })
}
const on = build('FEN-26.20B-S')
const loader = archived({
  ...build('FEN-26.22B-S', { loaderVersion: 12 }),
  id: 'loader 12',
  kind: 'part',
  images: build('FEN-26.22B-S').images.filter(({ role }) => role === 'loader'),
  together: [],
})
const [first, second] = [
  stepTo('FEN-26.20B-S', 'FEN-26.21B-S'),
  stepTo('FEN-26.21B-S', 'FEN-26.22B-S'),
]

describe('two steps after a loader', () => {
  const bench = benchOf({ family: fen, on, shelf: [loader, first, second] })
  it('are found as one route, and end as they promise', () => {
    const at = caseOf(bench, second, { keepData: true, intent: 'update' })
    const start = { at, mode: bench.device.mode, permission: bench.device.permission }
    const { routes } = routesTo({ start, aims: [at.shelved.key] })
    const route = routes[0]
    expect(packsOf(route?.moves ?? [])).toHaveLength(3)
    const plan = planOf(start, route?.moves ?? [])
    if (!plan.ok) throw new Error(JSON.stringify(plan.refusal))
    const { device, state } = run(bench, plan.value)
    expect(state.phase.kind).toBe('ended')
    expect(device.data.form).toBe('readable')
  })
})
