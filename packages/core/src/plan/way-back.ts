/**
 * The package with which a device can go back to what it was: of the build that is on it, for its very board and
 * row, not below what the hardware accepts, proven and here. Reads a case; gives its key.
 */
import { settled } from '../device/identity.ts'
import type { Case, Unheld } from '../match/rule.ts'
import { packageOf } from '../match/rules/way-back.ts'
import type { BoardValues } from '../match/targets.ts'
import { TARGET_FACTS } from '../match/targets.ts'
import type { Fact } from '../terms/device.ts'

/** What is settled of its board. */
export const boardOf = ({ identity }: Pick<Case, 'identity'>): BoardValues =>
  Object.fromEntries(
    TARGET_FACTS.flatMap((fact) => {
      const value = settled(identity, fact)
      return value === undefined ? [] : [[fact, value] as const]
    }),
  )

/** The full package of the build it has now, for this very device, if it is here; how long it stays a way back is folded. */
export function wayBackOf(at: Unheld): string | undefined {
  const build = settled(at.identity, 'build')
  if (build === undefined) return undefined
  const of = (fact: Fact) => settled(at.identity, fact)
  const [region, carrier] = [of('region'), of('carrier')]
  const floors = { all: of('floor'), modem: of('floorModem'), main: of('floorMain') }
  const back = packageOf(at, { build: String(build), region, carrier, board: boardOf(at), floors })
  return back?.state === 'published' ? back.key : undefined
}
