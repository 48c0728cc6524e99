/** What rules say of layouts and of what a package says of itself. */
import { describe, expect, it } from 'vitest'
import { familyTable } from '../family/layout.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { DISK_BYTES, case0417 } from '../testing/cases.ts'
import { SCALE, newest, pack, proven } from '../testing/packages.ts'
import { saysOf, underMain } from '../testing/judged.ts'
import { tarn } from '../testing/tarn.ts'
import { judge } from './judge.ts'

const of = (manifest: Partial<Manifest>) =>
  case0417({ shelved: proven(pack({ build: 'H2.104.r4', ...manifest })) })

describe('rules of layout and package', () => {
  it('what a package calls one set comes whole, though its family knows of none', () => {
    const images = newest.images.filter(({ role }) => role !== 'rescue')
    const set = (together: Manifest['together']) =>
      saysOf('package.together', of({ images, together }))
    expect(set([['modem', 'variant']])).toBe('fits whole')
    expect(set([['modem', 'rescue']])).toBe('does-not-fit half')
    expect(set([['rescue', 'loader']])).toBe('fits whole')
  })

  it('two images are for one part only where they are its two forms', () => {
    const [image] = newest.images
    if (image === undefined) throw new Error('no image')
    const two = (more: Partial<typeof image>, other: Partial<typeof image>) =>
      saysOf(
        'layout.twice',
        of({
          images: [
            { ...image, ...more },
            { ...image, ...other },
          ],
        }),
      )
    expect(two({}, {})).toBe('does-not-fit twice')
    expect(two({ form: 'keeping' }, { form: 'wiping' })).toBe(undefined)
    expect(two({ form: 'keeping' }, { form: 'keeping' })).toBe('does-not-fit twice')
  })

  it('no image is for the table, whatever a family thinks of that', () => {
    const [image] = newest.images
    const table = { ...image, partition: 'table', role: 'table' } as NonNullable<typeof image>
    expect(saysOf('layout.never-written', of({ images: [table] }))).toBe('does-not-fit touched')
  })

  it('calibration is written and erased by no family’s leave, by its part and by where it lies', () => {
    const [image] = newest.images
    if (image === undefined) throw new Error('no image')
    const lax = { ...tarn, never: [], wipe: [...tarn.wipe, 'calib' as const] }
    const bare = { ...lax, partitions: tarn.partitions.filter(({ role }) => role !== 'calib') }
    const calib = { ...image, partition: 'calib', role: 'calib' as const }
    for (const family of [lax, bare])
      expect(saysOf('layout.never-written', { ...of({ images: [calib] }), family })).toBe(
        'does-not-fit touched',
      )
    const erases = { ...of({ effects: { erases: ['calib'] } }), family: lax }
    expect(saysOf('layout.never-erased', erases)).toBe('does-not-fit erased')
    expect(saysOf('layout.never-written', case0417({ table: underMain }))).toBe('does-not-fit over')
    const main = newest.images.filter(({ role }) => role !== 'main')
    const beside = { ...of({ images: main }), table: underMain }
    expect(saysOf('layout.never-written', beside)).toBe(undefined)
  })

  it('an image larger than its partition never fits, by how much is said', () => {
    const [first, ...rest] = newest.images
    if (first === undefined) throw new Error('no image')
    const at = of({ images: [{ ...first, size: 97 * 4096 }, ...rest] })
    const finding = judge(at).findings[0]
    expect(finding).toMatchObject({ rule: 'layout.images', facts: { bytes: 1024 * 1024 } })
  })

  it('nothing ever goes to calibration or to the customer’s data', () => {
    const [first] = newest.images
    if (first === undefined) throw new Error('no image')
    for (const partition of ['calib', 'customer'])
      expect(saysOf('layout.never-written', of({ images: [{ ...first, partition }] }))).toBe(
        'does-not-fit touched',
      )
  })

  it('a table of another storage size is another layout', () => {
    expect(saysOf('layout.table', case0417())).toBe('fits equal')
    const table = familyTable(tarn, { storageGb: 64 }, SCALE, DISK_BYTES)
    expect(saysOf('layout.table', case0417({ table }))).toBe('does-not-fit differs')
  })

  it('an unread table is judged by the family’s own, and asked for before anything is written', () => {
    const [first, ...rest] = newest.images
    if (first === undefined) throw new Error('no image')
    const large = of({ images: [{ ...first, size: 97 * 4096 }, ...rest] })
    const blind = { ...large, table: undefined }
    expect(saysOf('layout.images', blind)).toBe('does-not-fit large')
    expect(saysOf('layout.table', case0417({ table: undefined }))).toBe('fits-if met')
  })

  it('data that go back to an earlier release are lost for who must keep them', () => {
    const back = of({ release: 3 })
    expect(saysOf('promise.data', back)).toBe('does-not-fit lost')
    expect(saysOf('promise.data', { ...back, keepData: false })).toBe('fits-if wiped')
    expect(saysOf('promise.things', case0417({ placeless: ['photos'], keepData: false }))).toBe(
      undefined,
    )
  })
})
