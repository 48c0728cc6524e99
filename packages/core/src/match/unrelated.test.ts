/**
 * A package that has nothing to do with a device changes nothing that any rule says of it: another model's of the same build,
 * another family's of the same name, whether somebody vouches for it or not.
 */
import { describe, expect, it } from 'vitest'
import type { Shelved } from '../firmware/manifest.ts'
import { SAID } from '../testing/sayings.ts'
import { ask } from './rule.ts'
import { RULES } from './rules.ts'

const FOREIGN_MODEL = 'ZZZ-9'

/** The same build for a model that nobody has, and of a family that nobody has, with other bytes. */
const strangersOf = (one: Shelved): readonly Shelved[] => {
  const { manifest } = one
  const images = manifest.images.map((image) => ({
    ...image,
    sha256: image.sha256.replace(/./g, (digit) => (digit === 'f' ? '0' : 'f')),
  }))
  const targets = manifest.targets.map((target) => ({ ...target, model: FOREIGN_MODEL }))
  const odd = { ...manifest, images, release: manifest.release, loaderVersion: 99 }
  return [
    { ...one, key: `1 ${one.key}`, manifest: { ...odd, id: `1 ${manifest.id}`, targets } },
    {
      ...one,
      key: `2 ${one.key}`,
      manifest: { ...odd, id: `2 ${manifest.id}`, family: 'reed', targets },
    },
  ]
}

describe('a package that is for other devices', () => {
  it('changes nothing that is said, wherever it lies on the shelf', () => {
    const moved = SAID.flatMap(([id, say, at]) => {
      const rule = RULES.find((one) => one.id === id)
      if (rule === undefined || at.shelf.length === 0) return []
      const strangers = at.shelf.flatMap(strangersOf)
      const before = JSON.stringify(ask(rule, at))
      const beside = [
        [...strangers, ...at.shelf],
        [...at.shelf, ...strangers],
      ]
      return beside.some((shelf) => JSON.stringify(ask(rule, { ...at, shelf })) !== before)
        ? [`${id} ${say}`]
        : []
    })
    expect(moved).toEqual([])
  })
})
