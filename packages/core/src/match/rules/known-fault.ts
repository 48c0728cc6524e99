/**
 * A fault of the board that is known to show under the package's own images, with who saw it, and when. Where its owner's
 * own image stands in place of that one nothing is known of it: none is foreseen, and the first start shows.
 */
import { rolesCarried } from '../../firmware/carried.ts'
import type { PartRole } from '../../terms/device.ts'
import { faultsUnder } from '../../family/faults.ts'
import { rule } from '../rule.ts'

export const knownFault = rule({
  id: 'state.known-fault',
  overruled: 'anyone',
  needs: ['model', 'board'],
  says: {
    shows: ['fits-if', 'says', 'source', 'devices', 'date', 'drain'],
    replaced: ['fits', 'says', 'role', 'source', 'devices', 'date'],
  },
  concerns: ({ family }) => family.knownFaults.length > 0,
  check: ({ model, board }, { family, shelved: { manifest } }) => {
    const about = { model: String(model), board: String(board) }
    const under = (brings: (role: PartRole) => boolean) =>
      faultsUnder(family, about, (role) => (brings(role) ? [manifest.build] : []))
    const has = (role: PartRole) => manifest.images.some((image) => image.role === role)
    const own = rolesCarried(manifest)
    const [fault] = under((role) => has(role) && !own.some((one) => one === role))
    if (fault === undefined) {
      const [replaced] = under(has)
      if (replaced === undefined) return undefined
      const { says, role, source, devices, date } = replaced
      return {
        say: 'replaced',
        facts: { says, role, source, devices, date },
        rests: { date, on: devices },
      }
    }
    const { says, source, devices, date, drain = 1 } = fault
    const facts = { says, source, devices, date, drain }
    return { say: 'shows', facts, rests: { date, on: devices } }
  },
})
