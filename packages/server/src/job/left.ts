/** Packages that are no route's aim, each with its first reason; and every finding on one of them. */
import type { AnswerOf, Contract, RouteShown } from '@plain-slate/api'
import type { Manifest, Result, Shelved } from '@plain-slate/core'
import { firstReason, isTakeable, judge, ok, packageNamed, refuse } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { AtPort } from '../devices/case.ts'
import { bareplan, candidateOf } from '../plans/plan.ts'
import { roadsOf } from '../plans/roads.ts'
import { findingOf } from '../plans/shown.ts'
import type { JobAt } from './job-at.ts'

type Left = Pick<AnswerOf<Contract['jobRoutes']>, 'left' | 'more'>

/** Packages for other models of the family that are listed, nearest first; the others are counted. */
const OTHERS_MOST = 30

/** What names this very model comes before what is for others of its family. */
export function leftOf(found: AtPort, routes: readonly RouteShown[]): Left {
  const taken = new Set(routes.map((one) => one.package))
  const own = found.at.shelf.filter(({ key }) => !taken.has(key))
  const mine = new Set(found.at.shelf)
  const others = found.known.filter((one) => !mine.has(one))
  const listed = [...own, ...nearestFirst(found, others).slice(0, OTHERS_MOST)]
  return {
    left: listed.map((shelved) => rowOf(found, shelved)).sort(byVerdict),
    more: Math.max(0, others.length - OTHERS_MOST),
  }
}

const GROUPS = ['fits', 'fits-if', 'cannot-tell', 'does-not-fit'] as const
/** Equals stay as they stand: this model's before the others'. */
const byVerdict = (a: Left['left'][number], b: Left['left'][number]): number =>
  GROUPS.indexOf(a.verdict) - GROUPS.indexOf(b.verdict)

function rowOf(found: AtPort, shelved: Shelved): Left['left'][number] {
  const { verdict, reason } = firstReason({ ...found.at, shelved })
  const { key, manifest } = shelved
  return {
    package: key,
    title: manifest.title,
    build: manifest.build,
    verdict,
    kind: kindOf(manifest),
    reason: reason === undefined ? null : findingOf(reason),
    none: manifest.kind !== 'part' && isTakeable(verdict) ? whyNone(found, key) : null,
  }
}

/** Why no plan comes of one that fits. */
function whyNone(found: AtPort, key: string): string | null {
  const made = bareplan(found, key)
  return made.ok ? null : String(made.refusal.facts?.['why'] ?? '')
}

/** Names that differ in fewer letters stand nearer. */
function nearestFirst({ facts }: AtPort, others: readonly Shelved[]): readonly Shelved[] {
  const far = ({ manifest }: Shelved) =>
    Math.min(...manifest.targets.map(({ model }) => differing(model, facts.model)))
  const weighed = others.map((one) => ({ one, by: far(one) }))
  return weighed.sort((a, b) => a.by - b.by).map(({ one }) => one)
}

const differing = (a: string, b: string): number =>
  Math.abs(a.length - b.length) + [...a].filter((letter, index) => b[index] !== letter).length

/** A part that is a variant goes along with nothing: it is told apart from those that do. */
const kindOf = ({ kind, images }: Manifest): string =>
  kind === 'part' && images.some(({ role }) => role === 'variant') ? 'variant' : kind

/** Every finding on one package, the gravest first, and the open route that comes nearest to it. */
export async function whyOf(
  { found, slip, shelf }: JobAt,
  name: string,
): Promise<Result<AnswerOf<Contract['jobWhy']>, Refusal>> {
  if (found === undefined) return refuse({ code: 'slip.no-plan', facts: { number: slip.number } })
  const named = packageNamed(found.known, name)
  if (named.kind === 'several')
    return refuse({ code: 'package.several', facts: { id: name, keys: named.keys.join(', ') } })
  if (named.kind === 'none')
    return refuse({
      code: shelf.some(({ key }) => key === name) ? 'package.foreign' : 'package.unknown',
      facts: { id: name },
    })
  const { routes } = await roadsOf(found)
  const aims = routes.flatMap(
    ({ moves }) => found.known.find(({ key }) => key === moves.at(-1)?.pack) ?? [],
  )
  const { manifest } = named.found
  const nearest =
    aims.find((one) => one.manifest.build === manifest.build) ??
    aims.find((one) => one.manifest.release === manifest.release) ??
    aims[0]
  return ok({
    ...candidateOf(judge({ ...found.at, shelved: named.found })),
    nearest: nearest?.manifest.title ?? null,
  })
}
