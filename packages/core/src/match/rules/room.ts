/** What the device installs by itself has room in the store it is put in, as large as that may be. */
import { archiveOf } from '../../firmware/manifest.ts'
import type { Case, Ground } from '../rule.ts'
import { rule } from '../rule.ts'

const MIB = 1024 * 1024

export const room = rule({
  id: 'state.room',
  overruled: 'nobody',
  sees: ['freeMiB'],
  reads: ['way'],
  says: { fits: ['fits', 'bytes', 'most'], large: ['does-not-fit', 'bytes', 'most'] },
  /* A full package goes image by image as well, where nothing is said. */
  concerns: ({ shelved, way }) =>
    way === undefined ? shelved.manifest.kind === 'incremental' : way !== 'images',
  check: ({ freeMiB }, at) => {
    const { manifest } = at.shelved
    const most = mostMiB(at, freeMiB === undefined ? undefined : Number(freeMiB))
    const archive = archiveOf(manifest)
    if (most === undefined || archive === undefined) return undefined
    const facts = { bytes: archive.bytes * manifest.scale, most: most * MIB }
    return facts.bytes > facts.most ? { say: 'large', facts } : { say: 'fits', facts }
  },
})

/**
 * MiB of the roomiest store from which it is installed; undefined: one of them is of any size. Of the device's own what is
 * free counts, where that was read.
 */
function mostMiB(
  { family, shelved, way }: Ground & Pick<Case, 'way'>,
  free: number | undefined,
): number | undefined {
  const from = family.installs
    .filter(({ kinds }) => kinds.some((kind) => kind === shelved.manifest.kind))
    .map((one) => one.from)
    .filter((from) => way === undefined || from === way)
  const sizes = family.stores
    .filter(({ id }) => from.includes(id))
    .map(({ mostMiB: most, partition }) => least(most, partition === undefined ? undefined : free))
  const known = sizes.filter((size) => size !== undefined)
  return known.length === 0 || known.length < sizes.length ? undefined : Math.max(...known)
}

const least = (one: number | undefined, other: number | undefined): number | undefined =>
  one === undefined || other === undefined ? (one ?? other) : Math.min(one, other)
