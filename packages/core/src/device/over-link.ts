/**
 * What a device said over the link, as readings, and whose family it is. Reads facts; gives readings in the
 * order of the facts. The one way from the link to an identity.
 */
import type { Family } from '../family/profile.ts'
import type { Fact } from '../terms/device.ts'
import { FACTS } from '../terms/device.ts'
import type { Ms } from '../units/units.ts'
import { ms } from '../units/units.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { deviceFactsSchema } from '../wire/facts.ts'
import type { Reading } from './identity.ts'

type Told = Fact & keyof DeviceFacts

/** Facts that the link tells: those that its own schema has. */
export const FACTS_OVER_LINK: readonly Told[] = FACTS.filter(
  (fact): fact is Told => fact in deviceFactsSchema.shape,
)

/** Readings of what was said; a fact that was not told is no reading. */
export const readingsOf = (facts: DeviceFacts, at: Ms = ms(0)): readonly Reading[] =>
  FACTS_OVER_LINK.flatMap((fact) => {
    const value = facts[fact]
    if (value === undefined) return []
    return [{ fact, value, source: 'link', at, mode: facts.mode, person: undefined } as const]
  })

/** The family that names a device's model. */
export const familyOf = (
  families: readonly Family[],
  { model }: Pick<DeviceFacts, 'model'>,
): Family | undefined => families.find(({ models }) => models.some(({ code }) => code === model))
