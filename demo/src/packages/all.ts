/** Every package of the demo that has real bytes, and what stands on devices alone. */
import { ALDER_ON_DEVICES, ALDER_PACKAGES } from './alder.ts'
import { FEN_ON_DEVICES, FEN_PACKAGES } from './fen.ts'
import type { PackageDraft } from './line.ts'
import { TARN_ON_DEVICES, TARN_PACKAGES } from './tarn.ts'

/** The nineteen that the shelf is told of. */
export const DEMO_PACKAGES: readonly PackageDraft[] = [
  ...TARN_PACKAGES,
  ...ALDER_PACKAGES,
  ...FEN_PACKAGES,
]

/** Loaders and builds that stand on devices and on no shelf. */
export const ON_DEVICES_ONLY: readonly PackageDraft[] = [
  ...TARN_ON_DEVICES,
  ...ALDER_ON_DEVICES,
  ...FEN_ON_DEVICES,
]
