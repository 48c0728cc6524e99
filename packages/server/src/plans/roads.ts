/**
 * Routes of a device, searched in the thread beside and kept by what they rest on. A search that lasts too long gives up
 * with what it found, and says so.
 */
import { createHash } from 'node:crypto'
import type { DeviceState } from '@plain-slate/core'
import { packState, versionOf } from '@plain-slate/core'
import type { AtPort } from '../devices/case.ts'
import { askBeside } from './beside.ts'
import type { Roads } from './search-roads.ts'

/** A search that lasts longer than anybody waits is given up. */
const PATIENCE_MS = 5000
const known = new Map<string, Promise<Roads>>()
const KNOWN_MOST = 50

export const stateAt = ({ at, mode }: AtPort): DeviceState => ({ at, mode, permission: true })

/** Every route that is worth taking, or what stands in the way. Rejects when the thread dies. */
export function roadsOf(found: AtPort): Promise<Roads> {
  const key = keyOf(found)
  const before = known.get(key)
  if (before !== undefined) return before
  const made = askBeside({ kind: 'search', start: stateAt(found), patience: PATIENCE_MS })
  /* What gave up once may come to its end when it is asked again. */
  made.then(
    ({ limit }) => limit && known.delete(key),
    () => known.delete(key),
  )
  const [oldest] = known.keys()
  if (known.size >= KNOWN_MOST && oldest !== undefined) known.delete(oldest)
  known.set(key, made)
  return made
}

/** All that a search rests on. Packages and families are what they are called: their bytes do not change under a name. */
function keyOf(found: AtPort): string {
  const packed = packState(stateAt(found))
  const { shelf } = packed.at
  const plain = {
    ...packed,
    at: {
      ...packed.at,
      family: versionOf(found.family),
      shelf: shelf.map(
        ({ key, state, manifest, vouched }) =>
          `${key} ${state} ${manifest.archives.length} ${vouched?.by ?? ''} ${vouched?.date ?? ''}`,
      ),
    },
  }
  return createHash('sha256').update(JSON.stringify(plain)).digest('hex')
}
