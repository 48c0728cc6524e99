/**
 * Everything that a rule can say is said here, of a device and a package of which a master technician would say
 * it; and no rule reads what it did not declare.
 */
import { describe, expect, it } from 'vitest'
import { aimed, faulty, of, vouched } from '../testing/judged.ts'
import { newest, proven } from '../testing/packages.ts'
import { SAID } from '../testing/sayings.ts'
import type { Case, Rule } from './rule.ts'
import { ask, codeOf } from './rule.ts'
import { RULES } from './rules.ts'

const ruleOf = (id: string): Rule => {
  const found = RULES.find((one) => one.id === id)
  if (found === undefined) throw new Error(`no rule ${id}`)
  return found
}

describe('a rule', () => {
  it.each(SAID)('%s says %s', (id, say, at) => {
    const one = ruleOf(id)
    expect(ask(one, at)).toMatchObject({
      code: codeOf(one, say),
      verdict: one.says[say]?.[0],
    })
  })

  it('says nothing that is not said here', () => {
    const said = new Set(SAID.map(([id, say]) => `${id} ${say}`))
    const all = RULES.flatMap(({ id, says }) => Object.keys(says).map((say) => `${id} ${say}`))
    expect(all.filter((one) => !said.has(one))).toEqual([])
  })

  it('has an id of its own, and tells exactly the facts that it declared', () => {
    expect(new Set(RULES.map(({ id }) => id)).size).toBe(RULES.length)
    for (const [id, say, at] of SAID) {
      const [, ...names] = ruleOf(id).says[say] ?? []
      expect(Object.keys(ask(ruleOf(id), at)?.facts ?? {}).sort(), id).toEqual([...names].sort())
    }
  })

  it('reads what it declared and nothing else, of every case that is here', () => {
    const odd = new Set<string>()
    for (const one of RULES) {
      const may: readonly string[] = ['family', 'shelved', ...one.asks, ...one.reads]
      const watched = (at: Case): Case =>
        new Proxy(at, {
          get(of, name) {
            if (!may.includes(String(name))) odd.add(`${one.id} reads ${String(name)}`)
            return Reflect.get(of, name) as unknown
          },
        })
      const facts = [...one.needs, ...one.sees] as readonly string[]
      const seen = (values: object) =>
        new Proxy(values, {
          get(of, name) {
            if (!facts.includes(String(name))) odd.add(`${one.id} reads fact ${String(name)}`)
            return Reflect.get(of, name) as unknown
          },
        })
      const watching: Rule = {
        ...one,
        concerns: (at) => one.concerns(watched(at)),
        check: (values, at) => one.check(seen(values), watched(at)),
      }
      for (const [, , at] of SAID) ask(watching, at)
    }
    expect([...odd]).toEqual([])
  })

  it('cannot tell without a fact that it needs, whatever the package, and names it', () => {
    for (const one of RULES)
      for (const fact of one.needs) {
        const found = SAID.filter(([id]) => id === one.id).flatMap(
          ([, , at]) =>
            ask(one, { ...at, identity: { ...at.identity, [fact]: { kind: 'missing' } } }) ?? [],
        )
        const told = found.map(({ verdict, missing }) => ({ rule: one.id, verdict, missing }))
        const unknown = { rule: one.id, verdict: 'cannot-tell', missing: [fact] }
        expect(told).toEqual(told.map(() => unknown))
      }
  })

  it('cannot tell without what it asks for, and says what was not read', () => {
    const at = of({ supportedUntil: '2026-12-01' })
    expect(ask(ruleOf('package.supported'), { ...at, today: undefined })).toMatchObject({
      verdict: 'cannot-tell',
      remedy: { kind: 'look', what: 'today' },
    })
  })

  it('that rests on one person’s word is marked so, and older after a year; a depot’s signature is neither', () => {
    const marks = (at: Case) => ask(ruleOf('package.published'), at)?.marks.map(({ kind }) => kind)
    expect(marks(vouched('person'))).toEqual(['person'])
    expect(marks({ ...vouched('person'), today: '2028-01-01' })).toEqual(['old', 'person'])
    expect(marks(vouched('catalogue', '2020-01-01'))).toEqual([])
    expect(marks(vouched('maker', '2020-01-01'))).toEqual([])
  })

  it('that rests on few devices or an old date is marked as weaker', () => {
    const marks = (today: string) => ask(ruleOf('state.known-fault'), { ...faulty, today })?.marks
    expect(marks('2026-10-15')).toEqual([{ kind: 'thin', devices: 3 }])
    expect(marks('2031-10-15')?.map(({ kind }) => kind)).toEqual(['old', 'thin'])
  })
})

describe('overruling', () => {
  const { key } = proven(newest)
  const region = aimed({ region: 'EX' })
  const overruled = (at: Case, ...rules: readonly string[]): Case => ({
    ...at,
    overruled: new Map([[at.shelved.key, rules]]),
  })

  it('makes one finding a condition, named as such, and touches no other', () => {
    const one = ask(ruleOf('identity.region'), overruled(region, 'identity.region'))
    expect(one).toMatchObject({ verdict: 'fits-if', remedy: { kind: 'overruled' } })
    expect(one?.code).toBe('fit.identity.region.not')
    expect(ask(ruleOf('identity.region'), overruled(region, 'identity.model'))?.verdict).toBe(
      'does-not-fit',
    )
  })

  it('is for the package that was named, and for no other', () => {
    const another = { ...region, overruled: new Map([[`${key} else`, ['identity.region']]]) }
    expect(ask(ruleOf('identity.region'), another)?.verdict).toBe('does-not-fit')
  })

  it('is never of what kills, of a floor, a permit, a refuted digest, a closed account', () => {
    const never = [
      ...['identity.board', 'identity.chipset', 'identity.target', 'identity.same'],
      ...['layout.images', 'layout.slots', 'layout.never-written', 'layout.never-erased'],
      ...['state.floor', 'state.floor.loader', 'state.floor.modem', 'state.floor.main'],
      ...['permit.device', 'permit.day', 'permit.spent', 'package.published'],
      ...['owner.account', 'state.lock', 'state.cell'],
      /* An owner's no is the owner's. */
      ...['package.channel', 'promise.mark', 'package.unreleased-source'],
    ]
    for (const id of never) {
      expect([id, ruleOf(id).overruled]).toEqual([id, 'nobody'])
      for (const [, , at] of SAID.filter(([rule]) => rule === id))
        expect(ask(ruleOf(id), overruled(at, id))).toEqual(ask(ruleOf(id), at))
    }
  })

  it('knows more than forty-five rules', () => {
    expect(RULES.length).toBeGreaterThanOrEqual(45)
  })
})
