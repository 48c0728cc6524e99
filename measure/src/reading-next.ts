/** Read next over a family's shelf: counted by value, beside asking every value of every package by itself. */
import { candidates, nextReadings } from '@plain-slate/core'
import type { Probe } from '@plain-slate/core'
import { case0417 } from '../../packages/core/src/testing/cases.ts'
import { reading, without } from '../../packages/core/src/testing/devices.ts'
import { pack, proven } from '../../packages/core/src/testing/packages.ts'
import { tarn } from '../../packages/core/src/testing/tarn.ts'
import { identify } from '../../packages/core/src/device/identity.ts'
import type { Reading } from '../../packages/core/src/device/identity.ts'
import type { Row } from './row.ts'
import { spread, timed } from './timed.ts'

const PACKAGES = 5000
const COUNTER = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
const BASE = COUNTER.length
const name = (at: number) => {
  const digit = (place: number) => COUNTER[Math.floor(at / BASE ** place) % BASE] ?? '0'
  return `H2.${digit(2)}${digit(1)}${digit(0)}.r4`
}
const ROWS = tarn.models.flatMap(({ code, boards, chipset, storages }) =>
  boards.flatMap((board) =>
    storages.flatMap((storage) =>
      tarn.variants.map(({ region }) => ({
        model: code,
        boards: [board],
        chipset,
        storage: [storage],
        region,
      })),
    ),
  ),
)

/** Builds one after the other for every row in turn, every third a step from the one before. */
function probe(readings: readonly Reading[]): Probe {
  const shelf = Array.from({ length: PACKAGES }, (_, at) => {
    const row = ROWS[at % ROWS.length]
    const asks = at % 4 === 0 ? { minLoader: 5 + (at % 3) } : {}
    const full = pack({
      build: name(at),
      id: `p${at}`,
      release: 3 + (at % 4),
      generation: 4 + (at % 4),
      requires: asks,
      targets: row === undefined ? [] : [row],
    })
    if (at % 3 !== 1) return proven(full)
    return proven({ ...full, kind: 'incremental', requires: { ...asks, exactBuild: name(at - 1) } })
  })
  const { shelved: _, ...rest } = case0417({ table: undefined, evidence: new Map() })
  const at = { ...rest, shelf, identity: identify(tarn, readings) }
  const where = { mode: undefined, permission: false }
  return { at, readings, judged: candidates(at), closed: [], where }
}

export async function readingNext(): Promise<readonly Row[]> {
  const known = probe(without('board', 'floor', 'loaderVersion', 'bootLock', 'build'))
  const unknown = probe([reading('model', 'BRAK-H2K', 'label')])
  const [some, all] = [
    await timed(() => nextReadings(known)),
    await timed(() => nextReadings(unknown)),
  ]
  const left = (one: Probe) => nextReadings(one)[0]?.left.toLocaleString('en') ?? '0'
  return [
    {
      what: `read next over ${PACKAGES.toLocaleString('en')} judged packages, the model settled: ${left(known)} left`,
      measured: `${some.median.toFixed(1)} ms (${spread(some)})`,
      limit: 'aim at most 20 ms',
    },
    {
      what: `the same of a device of which a label alone is read: ${left(unknown)} left`,
      measured: `${all.median.toFixed(1)} ms (${spread(all)})`,
      limit: 'aim at most 20 ms',
    },
  ]
}
