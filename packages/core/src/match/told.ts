/**
 * What people said on a slip, as rules take it: which rules they overruled for which packages, and where they depart from
 * what the house decided. Reads standing lines; gives both.
 */
import type { Line } from '../terms/line.ts'
import type { SchoolQuestion } from '../terms/schools.ts'
import { SCHOOLS, SCHOOL_QUESTIONS } from '../terms/schools.ts'
import type { HouseRules } from './house.ts'

type Lines = ReadonlyMap<string, Line>

const OVERRULE = 'overrule.'
const APART = ', '

/** The topic under which the overruling of a rule stands: its answer names the packages it is for. */
export const overruleTopic = (rule: string): string => `${OVERRULE}${rule}`

/** Keys of the packages for which a rule stands overruled. */
export const packagesOverruled = (lines: Lines, rule: string): readonly string[] =>
  (lines.get(overruleTopic(rule))?.answer ?? '').split(APART).filter((key) => key !== '')

/** The answer of the line once a package is taken among them, or out of them. */
export const overruledWith = (
  lines: Lines,
  rule: string,
  { key, stands }: { readonly key: string; readonly stands: boolean },
): string => {
  const others = packagesOverruled(lines, rule).filter((one) => one !== key)
  return (stands ? [...others, key] : others).join(APART)
}

/** Rules that stand overruled, by package. */
export function overruledIn(lines: Lines): ReadonlyMap<string, readonly string[]> {
  const by = new Map<string, readonly string[]>()
  for (const topic of lines.keys()) {
    if (!topic.startsWith(OVERRULE)) continue
    const rule = topic.slice(OVERRULE.length)
    for (const key of packagesOverruled(lines, rule)) by.set(key, [...(by.get(key) ?? []), rule])
  }
  return by
}

const DEPART = 'depart.'
/** The topic under which a slip departs from what its house decided on a question. */
export const departTopic = (question: SchoolQuestion): string => `${DEPART}${question}`

/** The house rules as they are for one slip: with what it departs from, each with a reason on its line. */
export function houseFor(house: HouseRules, lines: Lines): HouseRules {
  const departed = SCHOOL_QUESTIONS.flatMap((question) => {
    const answer = lines.get(departTopic(question))?.answer
    const school = SCHOOLS[question].find((one) => one === answer)
    return school === undefined ? [] : [[question, school] as const]
  })
  return { ...house, ...Object.fromEntries(departed) }
}
