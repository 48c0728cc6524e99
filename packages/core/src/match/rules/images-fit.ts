/** Every image has its partition and is not larger than it. Never overruled. */
import { placesOf } from '../../family/layout.ts'
import type { Rule } from '../rule.ts'

export const imagesFit: Rule = {
  id: 'layout.images',
  needs: [],
  final: true,
  codes: ['fit.layout.images.fits', 'fit.layout.images.absent', 'fit.layout.images.large'],
  check: (_, at) => {
    const { table } = at
    if (table === undefined) return undefined
    for (const image of at.shelved.manifest.images) {
      const { partition, size } = image
      const names = placesOf(at.family, image).map(({ name }) => name)
      const places = table.partitions.filter(({ name }) => names.includes(name))
      const sizes = places.map(({ sectors }) => sectors * table.sectorBytes)
      if (places.length === 0)
        return { verdict: 'does-not-fit', code: 'fit.layout.images.absent', facts: { partition } }
      const over = size - Math.min(...sizes)
      if (over > 0) {
        const bytes = over * at.shelved.manifest.scale
        const facts = { partition, bytes }
        return { verdict: 'does-not-fit', code: 'fit.layout.images.large', facts }
      }
    }
    const facts = { images: at.shelved.manifest.images.length }
    return { verdict: 'fits', code: 'fit.layout.images.fits', facts }
  },
}
