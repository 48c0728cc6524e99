/** A fault of the board that is known to show under the package's own images, with who saw it, and when. */
import { faultsUnder } from '../../family/faults.ts'
import { rule } from '../rule.ts'

export const knownFault = rule({
  id: 'state.known-fault',
  overruled: 'anyone',
  needs: ['model', 'board'],
  says: { shows: ['fits-if', 'says', 'source', 'devices', 'date', 'drain'] },
  concerns: ({ family }) => family.knownFaults.length > 0,
  check: ({ model, board }, { family, shelved: { manifest } }) => {
    const about = { model: String(model), board: String(board) }
    const [fault] = faultsUnder(family, about, (role) =>
      manifest.images.some((image) => image.role === role) ? [manifest.build] : [],
    )
    if (fault === undefined) return undefined
    const { says, source, devices, date, drain = 1 } = fault
    const facts = { says, source, devices, date, drain }
    return { say: 'shows', facts, rests: { date, on: devices } }
  },
})
