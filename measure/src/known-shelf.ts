/**
 * A slip beside a large shelf: its page after each change with ten thousand packages known, against the same slip with
 * ten, in one run; how long their catalogue takes, and what the server holds of them.
 */
import { performance } from 'node:perf_hooks'
import type { Manifest } from '@plain-slate/core'
import { TARN_R4, draftOf, listedPackage, signedCatalogue } from '@plain-slate/demo'
import { BENCH_SECRET } from '@plain-slate/server/testing/agent'
import setup from '../../e2e/setup.ts'
import type { Knowing } from '../../e2e/known.ts'
import { knowing, playedSlip } from '../../e2e/known.ts'
import type { Row } from './row.ts'
import { alternating, spread } from './timed.ts'

const FEW = 10
const MANY = 10_000
/** One package in so many is for the device's own model. */
const OWN = 100
const MIB = 1024 ** 2

/** Packages of one line of handhelds, most for models that are not in the house. */
function shelfOf(count: number): readonly Manifest[] {
  const made = { release: 5, patchDate: '2026-09-01', requires: { minLoader: 7 } }
  return Array.from({ length: count }, (_, at) => {
    const model = at % OWN === 0 ? 'BRAK-H2K' : `BRAK-X${at % OWN}`
    const line = { ...TARN_R4, targets: TARN_R4.targets.map((one) => ({ ...one, model })) }
    return listedPackage(draftOf(line, 'H2.102.r4', { id: `known-${at}`, ...made }))
  })
}

const LEAD = {
  device: 'Brakken H2K',
  intent: 'update',
  facts: { model: 'BRAK-H2K', serial: 'TRN4490077F31', floor: 5, mode: 'normal' },
} as const

/** Something is said of the slip, so that nothing of its job is kept; then it is asked for. */
async function askedAnew({ address }: Knowing, number: string, path: string): Promise<void> {
  const headers = { ...BENCH_SECRET, 'content-type': 'application/json' }
  const lines = [{ topic: 'accessory.case', answer: 'here' }]
  const said = { method: 'POST', headers, body: JSON.stringify({ lines }) }
  await (await fetch(`${address}/api/slips/${number}/lines`, said)).arrayBuffer()
  const answer = await fetch(`${address}/api/slips/${number}/${path}`, { headers })
  if (!answer.ok) throw new Error(await answer.text())
  await answer.arrayBuffer()
}

export async function knownShelf(): Promise<readonly Row[]> {
  const stop = await setup()
  const few = await knowing(shelfOf(FEW))
  const heap = heapNow()
  const text = signedCatalogue(shelfOf(MANY))
  const many = await knowing([])
  const began = performance.now()
  await many.take(text)
  const seconds = (performance.now() - began) / 1000
  const slips = [await playedSlip(few, LEAD), await playedSlip(many, LEAD)] as const
  const pages = async (path: string) =>
    alternating([() => askedAnew(few, slips[0], path), () => askedAnew(many, slips[1], path)])
  const [bare, full] = await pages('job')
  const [bareRoutes, fullRoutes] = await pages('routes')
  const held = (heapNow() - heap) / MIB
  for (const one of [few, many]) await one.close()
  await stop()
  if (!bare || !full || !bareRoutes || !fullRoutes) throw new Error('nothing was timed')
  const known = MANY.toLocaleString('en')
  return [
    {
      what: `GET /api/slips/N/job after something was said, with ${known} packages known, against ${FEW}`,
      measured: `${(full.median - bare.median).toFixed(0)} ms more (${spread(full)} against ${spread(bare)})`,
      limit: 'aim 60 ms more',
    },
    {
      what: `GET /api/slips/N/routes then, ${MANY / OWN} of them for its model`,
      measured: `${(fullRoutes.median - bareRoutes.median).toFixed(0)} ms more (${spread(fullRoutes)} against ${spread(bareRoutes)})`,
      limit: 'no aim',
    },
    {
      what: `taking in their catalogue, ${(text.length / MIB).toFixed(0)} MiB`,
      measured: `${seconds.toFixed(1)} s`,
      limit: 'no aim',
    },
    {
      what: `heap of the server then, against before`,
      measured: `${held.toFixed(0)} MiB more`,
      limit: 'no aim',
    },
  ]
}

/** Bytes of the heap that are in use, after what can be thrown away was, where that can be asked for. */
function heapNow(): number {
  globalThis.gc?.()
  return process.memoryUsage().heapUsed
}
