/**
 * What the customer named at the counter: the variant that it is to be, and the build. Reads the lines of a slip; gives
 * the named row and build, and whether a package is of them. Nothing named: any of the intent's own will do.
 */
import type { Manifest } from '../firmware/manifest.ts'
import type { Intent } from '../terms/slip.ts'
import type { Line } from '../terms/line.ts'
import type { Target } from './targets.ts'
import { isForRow } from './targets.ts'

export const REGION_TOPIC = 'use.region'
export const ROW_TOPIC = 'want.row'
export const BUILD_TOPIC = 'want.build'
/** What is answered where any build of the intent will do. */
export const ANY_BUILD = 'any'

type Said = {
  readonly intent: Intent
  readonly lines: ReadonlyMap<string, Line> | undefined
}
export type NamedRow = { readonly region: string; readonly carrier: string }

/** A row as it is answered: region and carrier of the family's own table. */
export const rowText = ({ region, carrier }: NamedRow): string => `${region}/${carrier}`

/** The row that a change of variant is to come to; other intents change none. */
export function wantedRow({ intent, lines }: Said): NamedRow | undefined {
  const [region, carrier] = lines?.get(ROW_TOPIC)?.answer.split('/') ?? []
  return intent !== 'variant-change' || region === undefined || carrier === undefined
    ? undefined
    : { region, carrier }
}

export function wantedBuild({ lines }: Pick<Said, 'lines'>): string | undefined {
  const answer = lines?.get(BUILD_TOPIC)?.answer
  return answer === ANY_BUILD ? undefined : answer
}

/** Whether one of these targets is of a row by its own word: one that names no region names no variant. */
export const isOfRow = (targets: readonly Target[], { region, carrier }: NamedRow): boolean =>
  targets.some((target) => target.region !== undefined && isForRow(target, region, carrier))

/** Whether a package is what was named, as far as anything was: a build, or a row of the model it is for. */
export function isNamed(said: Said, { build, targets }: Manifest): boolean {
  const row = wantedRow(said)
  return build === (wantedBuild(said) ?? build) && (row === undefined || isOfRow(targets, row))
}
