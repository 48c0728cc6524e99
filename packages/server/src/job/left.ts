/** Packages that are no route's aim, each with its first reason; and every finding on one of them. */
import type { AnswerOf, Contract, RouteShown } from '@plain-slate/api'
import type { Manifest, Result, Shelved } from '@plain-slate/core'
import { aimOf, firstReason, isTakeable, judge, ok, refuse } from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import type { Refusal } from '../base/refusal.ts'
import type { AtPort } from '../devices/case.ts'
import { bareplan, candidateOf } from '../plans/plan.ts'
import { roadsOf } from '../plans/roads.ts'
import { findingOf } from '../plans/shown.ts'
import { keyed, namedOnShelf, packageMeant, shelvedOf } from '../shelf/shelf.ts'
import type { Database } from '../tables/database.ts'
import { modelsNamed, packagesNaming } from '../tables/packages.ts'
import type { JobAt } from './job-at.ts'

type Left = Pick<AnswerOf<Contract['jobRoutes']>, 'left' | 'more'>

/** Packages for other models of the family that are listed, nearest first; the others are counted. */
const OTHERS_MOST = 30

/** What names this very model comes before what is for others of its family; `family`: how many that has in all. */
export async function leftOf(
  db: Database,
  found: AtPort,
  routes: readonly RouteShown[],
  family: number,
): Promise<Left> {
  const taken = new Set(routes.map((one) => one.package))
  const own = found.at.shelf.filter(({ key }) => !taken.has(key))
  const others = await nearestOf(db, found)
  const listed = [...own, ...others]
  return {
    left: listed.map((shelved) => rowOf(found, shelved)).sort(byVerdict),
    more: Math.max(0, family - found.at.shelf.length - others.length),
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
  if (!made.ok) return String(made.refusal.facts?.['why'] ?? '')
  /* A package that is on it already is one to close the lock over, and nothing by itself. */
  const idle = made.value.plan.packages.every(({ decisions }) =>
    decisions.every(({ write }) => !write),
  )
  return idle ? sayAny('en-GB', 'plan.none.nothing-to-write', {}) : null
}

/** Packages for other models, those first whose names differ in fewer letters. */
async function nearestOf(
  db: Database,
  { family, facts: { model } }: AtPort,
): Promise<readonly Shelved[]> {
  const models = (await modelsNamed(db, family.id))
    .filter((one) => one !== model)
    .sort((a, b) => differing(a, model) - differing(b, model) || a.localeCompare(b))
  const found = new Map<string, Shelved>()
  for (const one of models) {
    const left = OTHERS_MOST - found.size
    if (left <= 0) break
    const asked = { family: family.id, models: [one], not: model, most: OTHERS_MOST }
    const named = keyed(await packagesNaming(db, asked))
    for (const other of named.filter(({ key }) => !found.has(key)).slice(0, left))
      found.set(other.key, shelvedOf(other))
  }
  return [...found.values()]
}

const differing = (a: string, b: string): number =>
  Math.abs(a.length - b.length) + [...a].filter((letter, index) => b[index] !== letter).length

/** A part that is a variant goes along with nothing: it is told apart from those that do. */
const kindOf = ({ kind, images }: Manifest): string =>
  kind === 'part' && images.some(({ role }) => role === 'variant') ? 'variant' : kind

/** Every finding on one package, the gravest first, and the open route that comes nearest to it. */
export async function whyOf(
  db: Database,
  { found, slip }: JobAt,
  name: string,
): Promise<Result<AnswerOf<Contract['jobWhy']>, Refusal>> {
  if (found === undefined) return refuse({ code: 'slip.no-plan', facts: { number: slip.number } })
  const named = packageMeant(await namedOnShelf(db, [name]), name)
  if (!named.ok) return named
  if (named.value.manifest.family !== found.family.id)
    return refuse({ code: 'package.foreign', facts: { id: name } })
  const { routes } = await roadsOf(found)
  const aims = routes.flatMap(
    ({ moves }) => found.known.find(({ key }) => key === aimOf(moves)?.pack) ?? [],
  )
  const { manifest } = named.value
  const nearest =
    aims.find((one) => one.manifest.build === manifest.build) ??
    aims.find((one) => one.manifest.release === manifest.release) ??
    aims[0]
  return ok({
    ...candidateOf(judge({ ...found.at, shelved: shelvedOf(named.value) })),
    nearest: nearest?.manifest.title ?? null,
  })
}
