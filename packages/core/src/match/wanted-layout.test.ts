/** What a device whose table nobody read must turn out to have: of the family, and of the package where the family is silent. */
import { describe, expect, it } from 'vitest'
import { layoutText, textDifferences } from '../layout/wanted.ts'
import { case0417 } from '../testing/cases.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { layoutFor, wantedLayout } from './tables.ts'

const about = { storageGb: 32, model: 'BRAK-H2K', board: 'r4' }
const base = case0417()
const wantedOf = (layout: Manifest['layout'] | undefined) => {
  const { shelved } = base
  const { layout: _, ...manifest } = shelved.manifest
  const made = layout === undefined ? manifest : { ...manifest, layout }
  return wantedLayout({ ...base, shelved: { ...shelved, manifest: made } }, about)
}
const family = layoutFor(base, about)
const names = family?.partitions.map(({ name }) => name) ?? []
const TYPE = '0fc63daf-8483-4772-8e79-3d69d8477de4'

describe('the layout that is wanted of a device whose table nobody read', () => {
  it('is the family’s where the package says none', () => {
    expect(wantedOf(undefined)).toEqual(family)
  })

  it('takes from the package what the family does not give, and nothing that it does', () => {
    const wanted = wantedOf({
      partitions: names.map((name, at) => ({
        name,
        bytes: 4096,
        ...(at === 0 ? { type: TYPE } : {}),
      })),
    })
    expect(wanted?.partitions[0]?.type).toBe('af3dc60f838472478e793d69d8477de4')
    expect(wanted?.partitions[0]?.bytes).toBe(family?.partitions[0]?.bytes)
    /* The last takes the rest, of which the family gives no size. */
    expect(wanted?.partitions.at(-1)?.bytes).toBe(4096)
  })

  it('is the package’s where that names others, and a meeting says which', () => {
    const wanted = wantedOf({ partitions: [...names, 'extra'].map((name) => ({ name })) })
    expect(wanted?.partitions.map(({ name }) => name)).toEqual([...names, 'extra'])
    if (wanted === undefined || family === undefined) throw new Error('both give a layout')
    const here = layoutText(family, 512)
    expect(textDifferences(here, layoutText(wanted, 512)).map(({ name }) => name)).toContain(
      'extra',
    )
  })
})
