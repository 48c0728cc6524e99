/** A rescue of its owner's own: replaced, or kept where the house or the slip has it so, and never behind a closed lock. */
import { describe, expect, it } from 'vitest'
import type { HouseRules } from '../match/house.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Unheld } from '../match/rule.ts'
import { fold } from '../plan/folds.ts'
import { planOf } from '../plan/plan.ts'
import { routesTo } from '../route/route.ts'
import { alder, benchOf, caseOf, packageOf } from '../testing/families.ts'
import { open as here } from '../testing/judged.ts'
import { digestOf } from '../testing/packages.ts'
import { factsOf } from '../twin/told.ts'
import { partOf } from '../twin/state.ts'
import { keepsPromise, rehearse } from './rehearse.ts'

const next = packageOf(alder, { model: 'CORV-5N', board: 'C', build: '20-2638.0-HO', release: 20 })
const OWN = digestOf('a rescue of his own')
const stock = here.images.find(({ role }) => role === 'rescue')

/** A phone with its owner's rescue on it, and what is known of that. */
function phone(lock: 'open' | 'closed' = 'open', on = OWN) {
  const bench = benchOf({
    family: { ...alder, installs: [] },
    on: here,
    shelf: [next],
    more: { lock },
  })
  const { nature, device } = bench
  const made = nature.catalogue.get(stock?.sha256 ?? '')
  const part = device.parts['rescue']
  if (made === undefined || part === undefined) throw new Error('no rescue')
  const catalogue = new Map([...nature.catalogue, [OWN, { ...made, image: OWN, modified: true }]])
  const own = partOf('rescue', part.blocks, on)
  return {
    ...bench,
    nature: { ...nature, catalogue },
    device: { ...device, parts: { ...device.parts, rescue: own } },
  }
}

function decided(
  bench: ReturnType<typeof phone>,
  { rescue = 'kept', ...more }: Partial<Unheld> & { readonly rescue?: HouseRules['rescue'] } = {},
  digest: string = OWN,
) {
  const house = { ...USUAL_HOUSE, rescue }
  const evidence = new Map([['rescue', { kind: 'digest', sha256: digest } as const]])
  const { shelved, ...at } = caseOf(bench, next, { keepData: true, house, evidence, ...more })
  const start = { at, mode: bench.device.mode, permission: bench.device.permission }
  const [route] = routesTo({ start, aims: [shelved.key] }).routes
  const plan = planOf(start, route?.moves ?? [])
  if (!plan.ok) throw new Error(JSON.stringify(plan.refusal))
  const { decisions = [] } = plan.value.packages.at(-1) ?? {}
  const reason = decisions.find(({ image }) => image.role === 'rescue')?.reason.kind
  return { start, plan: plan.value, reason }
}

describe('a rescue of its owner’s own', () => {
  it('is kept where the house keeps it, and goes where the house has stock', () => {
    expect(decided(phone()).reason).toBe('own')
    expect(decided(phone(), { rescue: 'stock' }).reason).toBe('differs')
  })

  it('is none that any package holds, none that nobody read, none behind a closed lock', () => {
    expect(decided(phone('open', stock?.sha256), {}, stock?.sha256).reason).toBe('differs')
    expect(decided(phone(), { evidence: new Map() }).reason).toBe('no-evidence')
    expect(decided(phone('closed')).reason).toBe('differs')
    expect(decided(phone(), { intent: 'relock', keepData: false }).reason).toBe('differs')
  })

  it('is kept where the house writes everything, too', () => {
    const house = { ...USUAL_HOUSE, rescue: 'kept' as const, writes: 'all' as const }
    expect(decided(phone(), { house }).reason).toBe('own')
  })

  it('stands there still when the plan came to its end as promised', () => {
    const bench = phone()
    const { start, plan } = decided(bench)
    const { device } = rehearse(bench.nature, bench.device, plan).end
    const { fates } = fold(plan, start.at)
    expect(keepsPromise(plan, fates, device, factsOf(bench.nature, device))).toBe(true)
    expect(JSON.stringify(device.parts['rescue'])).toContain(OWN)
  })
})
