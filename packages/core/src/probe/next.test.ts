/**
 * Read next is what full enumeration says: every fact, every value, every candidate judged by every rule. And each of
 * its declared inputs moves it: a row, a closed slip, a package, a way, a place, how far the device starts.
 */
import { describe, expect, it } from 'vitest'
import type { Reading } from '../device/identity.ts'
import { identify } from '../device/identity.ts'
import type { Family } from '../family/profile.ts'
import { candidates, judge } from '../match/judge.ts'
import type { Unheld } from '../match/rule.ts'
import { verdictOf } from '../match/rule.ts'
import { RULES } from '../match/rules.ts'
import type { Fact, Source } from '../terms/device.ts'
import { FACTS } from '../terms/device.ts'
import { case0417 } from '../testing/cases.ts'
import { reading, readings0417, without } from '../testing/devices.ts'
import { alder, caseOf, fen, packageOf } from '../testing/families.ts'
import { proven } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import { worldBench } from '../testing/worlds.ts'
import { chances } from '../units/chances.ts'
import type { NextReading, Probe } from './next.ts'
import { nextReadings } from './next.ts'
import type { Whereabouts } from './places.ts'
import { agreeing, settledBy, supposing } from './rows.ts'
import { askedBy, valuesFor } from './values.ts'

const ANYWHERE: Whereabouts = { mode: undefined, permission: false }

/** A probe of a case as these readings tell it. */
function probeOf(
  at: Unheld,
  readings: readonly Reading[],
  more: Partial<Pick<Probe, 'closed' | 'where'>> = {},
): Probe {
  const held = { ...at, identity: identify(at.family, readings) }
  const judged = candidates(held)
  return { at: held, readings, judged, closed: [], where: ANYWHERE, ...more }
}

/** gain(f) as it is defined, by judging everything anew under every value. */
function gainByEnumeration({ at, judged, closed }: Probe, fact: Fact): number {
  const left = judged.filter(({ verdict }) => verdict !== 'does-not-fit')
  const rows = agreeing(at.family, at.identity, closed)
  const asked = new Set(left.flatMap(({ shelved }) => askedBy(shelved.manifest, fact)))
  const values = valuesFor(rows, asked, fact)
  const all = values.reduce((sum, { weight }) => sum + weight, 0)
  if (all === 0) return 0
  const weighed = values.reduce((sum, { value, weight }) => {
    const identity = supposing(at.identity, settledBy(at.identity, rows, fact, value))
    const out = left.filter(
      ({ shelved }) => judge({ ...at, identity, shelved }).verdict === 'does-not-fit',
    )
    return sum + weight * out.length
  }, 0)
  return weighed / all
}

/** A small shelf around a device of a seed's, of boards, rows and builds that differ, and what is read of it. */
function seeded(seed: number): Probe {
  const bench = worldBench(seed)
  const random = chances(seed + 7000)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T
  const { family } = bench
  const others = Array.from({ length: 8 }, (_, index) => {
    const model = pick(family.models)
    const row = pick(family.variants)
    const made = packageOf(family, {
      model: model.code,
      board: pick(model.boards),
      build: pick(bench.shelf).build,
      id: `other ${index}`,
      generation: 3 + Math.floor(random() * 4),
      requires: random() < 0.5 ? {} : { minLoader: 30 + Math.floor(random() * 3) },
    })
    const [target] = made.targets
    if (target === undefined) throw new Error('no target')
    const { region, carrier } = row
    const sold = { ...target, region, carriers: [carrier], storage: [pick(target.storage)] }
    return { ...made, targets: random() < 0.3 ? [target, sold] : [sold] }
  })
  const aim = bench.shelf[0]
  if (aim === undefined) throw new Error('no package')
  const intent = pick(['update', 'restore', 'downgrade', 'variant-change'] as const)
  const { shelved: _, ...at } = caseOf(bench, aim, {
    intent,
    keepData: random() < 0.5,
    shelf: [...bench.shelf, ...others].map(proven),
    ...(random() < 0.5 ? { table: undefined } : {}),
  })
  const known = FACTS.filter(() => random() < 0.35)
  const readings = known.flatMap((fact): readonly Reading[] => {
    const standing = at.identity[fact]
    if (standing.kind !== 'settled') return []
    const source: Source = pick(['link', 'screen', 'label'])
    return [reading(fact, standing.value, source)]
  })
  return probeOf(at, readings)
}

describe('read next', () => {
  it('counts what full enumeration counts, on small shelves of all families', () => {
    const seeds = Array.from({ length: 60 }, (_, index) => index + 1)
    let gains = 0
    for (const seed of seeds) {
      const probe = seeded(seed)
      for (const { fact, gain } of nextReadings(probe)) {
        expect(gain, `seed ${seed}, ${fact}`).toBeCloseTo(gainByEnumeration(probe, fact), 9)
        if (gain > 0) gains += 1
      }
    }
    expect(gains).toBeGreaterThan(100)
  })

  it('leaves no fact out that would rule anything out', () => {
    for (const seed of [3, 11, 29]) {
      const probe = seeded(seed)
      const found = nextReadings(probe).map(({ fact }) => fact)
      const gaining = FACTS.filter(
        (fact) =>
          probe.at.identity[fact].kind !== 'settled' &&
          (probe.at.family.facts[fact] ?? []).length > 0 &&
          gainByEnumeration(probe, fact) > 0,
      )
      expect(found, `seed ${seed}`).toEqual(expect.arrayContaining([...gaining]))
    }
  })
})

describe('a rule that is asked once of alike packages', () => {
  it('says the same of all of them', () => {
    for (const seed of [1, 2, 5, 8, 13, 21]) {
      const { at } = seeded(seed)
      const said = new Map<string, string>()
      for (const [shelved, rule] of at.shelf.flatMap((one) =>
        RULES.map((r) => [one, r] as const),
      )) {
        if (rule.alike === undefined) continue
        const verdict = verdictOf(rule, { ...at, shelved }) ?? 'none'
        const key = `${rule.id} ${rule.alike(shelved.manifest)}`
        expect(said.get(key) ?? verdict, `seed ${seed}: ${key}`).toBe(verdict)
        said.set(key, verdict)
      }
    }
  })
})

/** The lead case without a package held against it. */
function lead(): Unheld {
  const { shelved: _, ...at } = case0417()
  return at
}
const best = (probe: Probe): NextReading => {
  const [first] = nextReadings(probe)
  if (first === undefined) throw new Error('nothing to read')
  return first
}
const gainOf = (probe: Probe, fact: Fact): number =>
  nextReadings(probe).find((one) => one.fact === fact)?.gain ?? 0
const secondsOf = (probe: Probe, fact: Fact): number | undefined =>
  nextReadings(probe).find((one) => one.fact === fact)?.place.seconds
const withFamily = (family: Family, at: Unheld): Unheld => ({ ...at, family })
const ON_LABEL = [reading('model', 'BRAK-H2K', 'label')]
const IN_LOADER: Whereabouts = { mode: 'loader', permission: false }

describe('what moves it', () => {
  it('a settled fact is not asked for again, and what its row shares is not either', () => {
    const facts = nextReadings(probeOf(lead(), without('chipset'))).map(({ fact }) => fact)
    expect(facts).not.toContain('model')
    const one = { ...tarn, models: tarn.models.filter(({ code }) => code === 'BRAK-H1') }
    expect(gainOf(probeOf(withFamily(one, lead()), ON_LABEL), 'chipset')).toBe(
      gainByEnumeration(probeOf(withFamily(one, lead()), ON_LABEL), 'chipset'),
    )
  })

  it('closed slips of a row make it likelier', () => {
    const at = lead()
    const row = { board: 'r5', chipset: 'Slate 2', storageGb: 32, region: 'HI', carrier: 'O' }
    const probe = (closed: Probe['closed']) => probeOf(at, without('board'), { closed })
    const before = gainOf(probe([]), 'board')
    const many = Array.from({ length: 9 }, () => ({ model: 'BRAK-H2K', ...row }))
    const elsewhere = many.map((one) => ({ ...one, model: 'BRAK-H1' }))
    expect(gainOf(probe(many), 'board')).toBeGreaterThan(before)
    expect(gainOf(probe(elsewhere), 'board')).toBe(before)
  })

  it('effort is the way from here and the reading; five seconds at the least', () => {
    const here = probeOf(lead(), without('board'), { where: IN_LOADER })
    expect(secondsOf(here, 'board')).toBe(5)
    const off = probeOf(lead(), without('board'), { where: { mode: 'off', permission: false } })
    const shown = tarn.facts.board?.flatMap(({ source, modes }) =>
      source === 'link' && modes !== 'any' ? modes : [],
    )
    const ways = tarn.ways.filter(
      ({ to, from }) => shown?.includes(to) === true && (from === 'any' || from.includes('off')),
    )
    expect(secondsOf(off, 'board')).toBe(5 + Math.min(...ways.map(({ seconds }) => seconds)))
  })

  it('a mode that nobody knows costs the longest of the ways', () => {
    const at = (mode: string) =>
      secondsOf(probeOf(lead(), without('board'), { where: { mode, permission: false } }), 'board')
    const nowhere = secondsOf(probeOf(lead(), without('board')), 'board')
    expect(nowhere).toBeGreaterThanOrEqual(Math.max(at('off') ?? 0, at('loader') ?? 0))
  })

  it('a device that does not start is not sent through its system, a dead one nowhere', () => {
    /* Its release is told by its system alone. */
    const readings = [...ON_LABEL, ...without('model', 'board', 'release')]
    const family = structuredClone(tarn)
    for (const place of family.facts.release ?? []) place.modes = ['normal']
    const starts = (is: Whereabouts['starts']) =>
      nextReadings(
        probeOf(withFamily(family, lead()), readings, {
          where: { mode: 'off', permission: false, starts: is },
        }),
      ).map(({ fact }) => fact)
    expect(starts(undefined)).toEqual(expect.arrayContaining(['board', 'release']))
    expect(starts('not')).toContain('board')
    expect(starts('not')).not.toContain('release')
    expect(starts('dead')).toEqual([])
  })

  it('a family’s figure: the seconds of a reading, and whom it trusts', () => {
    const slow = structuredClone(tarn)
    for (const place of slow.facts.board ?? []) place.seconds = 900
    const usual = secondsOf(probeOf(lead(), without('board'), { where: IN_LOADER }), 'board')
    const longer = probeOf(withFamily(slow, lead()), without('board'), { where: IN_LOADER })
    expect(usual).toBe(5)
    expect(secondsOf(longer, 'board')).toBe(900)
    const distrusted = structuredClone(tarn)
    for (const place of distrusted.facts.board ?? []) place.trust = 2
    const weak = probeOf(withFamily(distrusted, lead()), without('board'), { where: IN_LOADER })
    expect(nextReadings(weak).map(({ fact }) => fact)).not.toContain('board')
  })

  it('a package more that asks for something else; not its title', () => {
    const at = lead()
    const readings = without('loaderVersion')
    const before = gainOf(probeOf(at, readings), 'loaderVersion')
    const [first] = at.shelf
    if (first === undefined) throw new Error('no package')
    const asks = { ...first.manifest, id: 'asks', requires: { minLoader: 9 } }
    const titled = at.shelf.map((one) => ({ ...one, manifest: { ...one.manifest, title: 'x' } }))
    const more = [...at.shelf, proven(asks)]
    expect(gainOf(probeOf({ ...at, shelf: more }, readings), 'loaderVersion')).not.toBe(before)
    expect(gainOf(probeOf({ ...at, shelf: titled }, readings), 'loaderVersion')).toBe(before)
  })

  it('where nothing can be ruled out it is what tells most for the time', () => {
    const probe = probeOf(lead(), without('batteryPercent'), { where: IN_LOADER })
    const first = best(probe)
    expect(first.fact).toBe('batteryPercent')
    expect(first.gain).toBe(0)
    expect(first.tells).toBeGreaterThan(0)
    expect(nextReadings(probeOf(lead(), readings0417()))).toEqual([])
  })

  it('of an empty shelf it is what some rule needs, the quickest first', () => {
    const empty = { ...lead(), shelf: [] }
    const found = nextReadings(probeOf(empty, without('board', 'chipset'), { where: IN_LOADER }))
    expect(found.map(({ fact, left }) => [fact, left])).toEqual([
      ['board', 0],
      ['chipset', 0],
    ])
    expect(nextReadings(probeOf(empty, readings0417()))).toEqual([])
  })

  it('a label settles nothing that could kill, and does what could not', () => {
    const places = nextReadings(probeOf({ ...lead(), family: tarn }, [], { where: IN_LOADER }))
    expect(places.find(({ fact }) => fact === 'model')?.place.source).toBe('link')
    for (const family of [alder, fen])
      expect(family.facts.model?.some(({ source }) => source === 'label')).toBe(true)
  })
})
