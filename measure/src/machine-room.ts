/** The computing core on the lead device: judging a large shelf, rehearsing with every cut. */
import { firstReason, rehearseCuts } from '@plain-slate/core'
import { case0417 } from '../../packages/core/src/testing/cases.ts'
import { pack, proven } from '../../packages/core/src/testing/packages.ts'
import { device0417, nature, plan0417 } from '../../packages/core/src/testing/twins.ts'
import type { Row } from './row.ts'
import { spread, timed } from './timed.ts'

const MANIFESTS = 10_000
const MODELS = ['BRAK-H1', 'BRAK-H2', 'BRAK-H2K']

export async function machineRoom(): Promise<readonly Row[]> {
  const shelf = Array.from({ length: MANIFESTS }, (_, index) => {
    const model = MODELS[index % MODELS.length] ?? ''
    const boards = [index % 2 === 0 ? 'r4' : 'r5']
    const target = { model, boards, chipset: 'Slate 2', storage: [32] }
    return proven(pack({ build: 'H2.104.r4', id: `p${index}`, targets: [target] }))
  })
  const at = case0417()
  const judging = await timed(() => shelf.map((shelved) => firstReason({ ...at, shelved })))
  const plan = plan0417()
  const cuts = await timed(() => rehearseCuts(nature(), device0417(), plan))
  return [
    {
      what: `${MANIFESTS.toLocaleString('en')} manifests judged to verdict and first reason`,
      measured: `${judging.median.toFixed(0)} ms (${spread(judging)})`,
      limit: 'aim at most 60 ms',
    },
    {
      what: 'the lead plan rehearsed with every cut and its way out',
      measured: `${cuts.median.toFixed(0)} ms (${spread(cuts)})`,
      limit: 'aim at most 150 ms',
    },
  ]
}
