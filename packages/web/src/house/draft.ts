/** House rules as they are typed: text in fields, and the rules that it comes to where all of it can be read. */
import type { HandWork, HouseRules, SchoolQuestion } from '@plain-slate/core'
import { HAND_WORK, SCHOOL_QUESTIONS, USUAL_HOUSE, houseSchema } from '@plain-slate/core'

export type Draft = {
  schools: Pick<HouseRules, SchoolQuestion>
  fixed: boolean
  margin: string
  floor: string
  regions: string
  hands: Record<HandWork, string>
}

/** The percent a fixed floor begins with where none was set. */
const USUAL_FLOOR = 60

export const draftOf = (rules: HouseRules = USUAL_HOUSE): Draft => ({
  schools: Object.fromEntries(SCHOOL_QUESTIONS.map((one) => [one, rules[one]])) as Draft['schools'],
  fixed: rules.batteryFloor !== null,
  margin: String(rules.batteryMargin),
  floor: String(rules.batteryFloor ?? USUAL_FLOOR),
  regions: rules.lawfulRegions.join(', '),
  hands: Object.fromEntries(
    HAND_WORK.map((work) => [work, String(rules.handSeconds[work])]),
  ) as Draft['hands'],
})

/** A whole number as it is typed; what is none is refused by the schema. */
const whole = (text: string): number => (/^\d+$/.test(text.trim()) ? Number(text) : Number.NaN)

/** The rules; undefined where something cannot be read or may not be so. */
export function rulesOf(draft: Draft): HouseRules | undefined {
  const parsed = houseSchema.safeParse({
    ...draft.schools,
    batteryMargin: whole(draft.margin),
    batteryFloor: draft.fixed ? whole(draft.floor) : null,
    lawfulRegions: draft.regions
      .split(/[\s,]+/)
      .map((one) => one.trim().toUpperCase())
      .filter((one) => one !== ''),
    handSeconds: Object.fromEntries(HAND_WORK.map((work) => [work, whole(draft.hands[work])])),
  })
  return parsed.success ? parsed.data : undefined
}

/** The code of what a school is called; with `.why` behind it, of what it argues. */
export const schoolCode = (question: SchoolQuestion, school: string) =>
  `house.${question}.${school}` as 'house.writes.least'
