/**
 * What is settled of a device, as the facts that a model is made of: readings → identity → facts → model, and
 * nothing goes back. Reads an identity and what the device said last of how it stands; gives facts, of which
 * what nobody settled is not there.
 */
import type { DeviceFacts } from '../wire/facts.ts'
import { deviceFactsSchema } from '../wire/facts.ts'
import type { Mode } from '../terms/device.ts'
import type { Identity } from './identity.ts'
import { settled } from './identity.ts'
import { FACTS_OVER_LINK } from './over-link.ts'

/**
 * The facts; undefined while not even its model is known. `said`: what the device said last, for what no
 * reading is: how its start went, and its declared scale. A fact that people settled against the link is the
 * one they settled.
 */
export function settledFacts(
  identity: Identity,
  mode: Mode,
  said: DeviceFacts | undefined,
): DeviceFacts | undefined {
  const model = settled(identity, 'model') ?? said?.model
  if (model === undefined) return undefined
  const known = FACTS_OVER_LINK.flatMap((fact) => {
    const value = settled(identity, fact)
    return value === undefined ? [] : [[fact, value] as const]
  })
  const parsed = deviceFactsSchema.safeParse({
    ...Object.fromEntries(known),
    model: String(model),
    serial: String(settled(identity, 'serial') ?? said?.serial ?? ''),
    mode,
    outcome: said?.outcome ?? 'normal',
    ...(said?.limits === undefined ? {} : { limits: said.limits }),
    ...(said?.shows === undefined ? {} : { shows: said.shows }),
    ...(said?.marks === undefined ? {} : { marks: said.marks }),
    ...(said?.slotToTry === undefined ? {} : { slotToTry: said.slotToTry }),
    returns: said?.returns ?? 0,
    scale: said?.scale ?? 1,
  })
  return parsed.success ? parsed.data : undefined
}
