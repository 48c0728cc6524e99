/** How a package goes on: image by image, or whole, by the device itself. Reads a manifest and the way that was chosen. */
import type { Manifest } from '../firmware/manifest.ts'
import type { Case } from './rule.ts'

/** Its device writes the whole of it by itself: nothing of it can be left alone. */
export const isInstalled = ({ kind }: Pick<Manifest, 'kind'>, way: Case['way']): boolean =>
  way === undefined ? kind === 'incremental' : way !== 'images'
