/** Whether what stands on a partition is some package's. Reads the device's own digests and every package that is known. */
import { isCarried } from '../firmware/carried.ts'
import type { Case } from './rule.ts'

/** Whether some package that is known holds what stands on a partition, by the device's own digest. */
export function isKnown({ evidence, shelf }: Pick<Case, 'evidence' | 'shelf'>, partition: string) {
  const found = evidence.get(partition)
  const own = found?.kind === 'digest' ? found.sha256 : undefined
  return shelf.some(({ manifest }) =>
    manifest.images.some(({ sha256 }) => sha256 === own && !isCarried(manifest, sha256)),
  )
}
