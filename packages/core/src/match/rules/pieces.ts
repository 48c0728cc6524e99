/** It is of one piece: every image lies in one of the archives that it is made of. */
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const pieces = rule({
  id: 'package.pieces',
  overruled: 'nobody',
  says: { whole: ['fits', 'archives'], stray: ['does-not-fit', 'file', 'archive'] },
  check: (_, at) => {
    const lost = stray(at)
    return lost === undefined
      ? { say: 'whole', facts: { archives: at.shelved.manifest.archives.length } }
      : { say: 'stray', facts: { file: lost.file, archive: lost.archive } }
  },
})

const stray = ({ shelved: { manifest } }: Ground) =>
  manifest.images.find(({ archive }) => !manifest.archives.some(({ file }) => file === archive))
