/**
 * What no longer fits once facts are settled: by the rules that rest on them, each asked once of all packages that are
 * alike in what it reads of them. Reads a case and the packages that are not out yet; gives how many are out then.
 */
import type { FactValue } from '../device/identity.ts'
import type { Shelved } from '../firmware/manifest.ts'
import type { Case, Rule, Unheld } from '../match/rule.ts'
import { verdictOf } from '../match/rule.ts'
import { RULES } from '../match/rules.ts'
import type { Fact } from '../terms/device.ts'
import { supposing } from './rows.ts'

export type Settled = Readonly<Partial<Record<Fact, FactValue>>>
/** Packages by their places in a shelf. */
export type Places = readonly number[]
/** What is out, place by place. */
export type Outs = { readonly count: number; readonly has: (place: number) => boolean }

/** Rules that can rule a package out; those that are asked once for many packages first. */
const RULING = RULES.filter(
  ({ packs, says }) => packs && Object.values(says).some(([is]) => is === 'does-not-fit'),
).sort((a, b) => Number(b.alike !== undefined) - Number(a.alike !== undefined))

const rulesBy = new Map<string, readonly Rule[]>()

/** Rules that rest on one of these facts. */
function rulesOn(settled: Settled): readonly Rule[] {
  const moved = Object.keys(settled)
  const key = moved.join(' ')
  const known =
    rulesBy.get(key) ??
    RULING.filter(({ needs, sees }) => [...needs, ...sees].some((one) => moved.includes(one)))
  rulesBy.set(key, known)
  return known
}

/** What of the places is out once these facts are settled. */
export function ruledOut(at: Unheld, settled: Settled, among: Places): Outs {
  const identity = supposing(at.identity, settled)
  const ask = asking({ ...at, identity })
  const out = new Uint8Array(at.shelf.length)
  let count = 0
  for (const rule of rulesOn(settled)) {
    const { kinds, kindOf } = kindsOf(at.shelf, rule)
    const answers = new Int8Array(kinds).fill(UNASKED)
    for (const place of among) {
      if (out[place] === OUT) continue
      const kind = kindOf[place] ?? 0
      const shelved = at.shelf[place]
      if (shelved === undefined) continue
      /* What people overruled goes by the package. */
      const alone = at.overruled?.has(shelved.key) === true
      const answer = alone || answers[kind] === UNASKED ? ask(rule, shelved) : answers[kind]
      if (!alone) answers[kind] = answer ?? UNASKED
      if (answer !== OUT) continue
      out[place] = OUT
      count += 1
    }
  }
  return { count, has: (place) => out[place] === OUT }
}

/** The same of a few packages, each asked by itself. */
export function fewRuledOut(at: Unheld, settled: Settled, among: Places): number {
  const rules = rulesOn(settled)
  const ask = asking({ ...at, identity: supposing(at.identity, settled) })
  return among.filter((place) => {
    const shelved = at.shelf[place]
    return shelved !== undefined && rules.some((rule) => ask(rule, shelved) === OUT)
  }).length
}

const UNASKED = -1
const OUT = 1

/** Asks rules of one package after the other: a whole shelf is gone through, and one case serves for it. */
function asking(at: Unheld): (rule: Rule, shelved: Shelved) => number {
  const held: { -readonly [K in keyof Case]?: Case[K] } = { ...at }
  return (rule, shelved) => {
    held.shelved = shelved
    return verdictOf(rule, held as Case) === 'does-not-fit' ? OUT : 0
  }
}

/** Of each place of a shelf which kind of package it is to a rule; made once for as long as the shelf is one. */
type Kinds = { readonly kinds: number; readonly kindOf: Int32Array }
const kept = new WeakMap<readonly Shelved[], Map<Rule, Kinds>>()

function kindsOf(shelf: readonly Shelved[], rule: Rule): Kinds {
  const own = kept.get(shelf) ?? new Map<Rule, Kinds>()
  kept.set(shelf, own)
  const known = own.get(rule)
  if (known !== undefined) return known
  const { alike } = rule
  const ids = new Map<string, number>()
  const kindOf = Int32Array.from(shelf, ({ manifest }, place) => {
    if (alike === undefined) return place
    const text = alike(manifest)
    const id = ids.get(text) ?? ids.size
    ids.set(text, id)
    return id
  })
  const made = { kinds: alike === undefined ? shelf.length : ids.size, kindOf }
  own.set(rule, made)
  return made
}
