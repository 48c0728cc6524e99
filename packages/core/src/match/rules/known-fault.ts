/** A fault of the board that is known to show under the package's own images, with who saw it, and when. */
import { faultsUnder } from '../../family/faults.ts'
import type { Rule } from '../rule.ts'

export const knownFault: Rule = {
  id: 'state.known-fault',
  needs: ['model', 'board'],
  final: false,
  codes: ['fit.state.known-fault.shows'],
  check: ({ model, board }, { family, shelved: { manifest } }) => {
    if (family.knownFaults.length === 0) return undefined
    const about = { model: String(model ?? ''), board: String(board ?? '') }
    const [fault] = faultsUnder(family, about, (role) =>
      manifest.images.some((image) => image.role === role) ? [manifest.build] : [],
    )
    if (model !== undefined && fault === undefined) return undefined
    const { says = '', source = '', devices = 0, date = '', drain = 1 } = fault ?? {}
    const facts = { says, source, devices, date, drain }
    return { verdict: 'fits-if', code: 'fit.state.known-fault.shows', facts }
  },
}
