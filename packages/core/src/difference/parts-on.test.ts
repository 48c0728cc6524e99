/** What stands on it follows its own digests and what is known of builds, and nothing that was not read. */
import { describe, expect, it } from 'vitest'
import { fen } from '../testing/families.ts'
import { newest, onDevice } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { Evidence } from './least-write.ts'
import { partsOn } from './parts-on.ts'

const digest = (sha256: string): Evidence => ({ kind: 'digest', sha256 })
const of = (manifest: typeof newest, ...roles: readonly string[]) =>
  manifest.images
    .filter(({ role }) => roles.includes(role))
    .map(({ partition, sha256 }) => [partition, digest(sha256)] as const)
const stands = (evidence: readonly (readonly [string, Evidence])[], known = [newest, onDevice]) =>
  partsOn(tarn, new Map(evidence), known)

describe('what stands on a device', () => {
  it('is of the builds whose images its own digests are, part by part', () => {
    const { parts } = stands(of(newest, 'kernel', 'main'))
    expect(
      parts.map(({ partition, builds }) => [partition, builds.includes(newest.build)]),
    ).toEqual([
      ['kernel', true],
      ['main', true],
    ])
    expect(stands([['main', digest('f'.repeat(64))]]).parts[0]?.builds).toEqual([])
    expect(stands([['main', { kind: 'version', version: '9' }]]).parts).toEqual([])
    expect(stands(of(newest, 'main'), [onDevice]).parts[0]?.builds).toEqual([])
  })

  it('is one set, or of several builds at once, or too little was read', () => {
    expect(stands(of(newest, 'kernel', 'main')).set).toBe(newest.build)
    const mixed = [...of(onDevice, 'kernel'), ...of(newest, 'main')]
    expect(stands(mixed).set).toBe(null)
    expect(stands(of(newest, 'main')).set).toBe(undefined)
    const odd = [...of(newest, 'main'), ['kernel', digest('f'.repeat(64))] as const]
    expect(stands(odd).set).toBe(undefined)
  })

  it('asks of two slots the one that runs alone', () => {
    const image = (partition: string, letter: string) => ({
      ...(newest.images[0] ?? ({} as never)),
      partition,
      role: 'kernel' as const,
      sha256: letter.repeat(64),
    })
    const a = { ...newest, build: 'A', images: [image('kernel_a', 'a'), image('main_a', 'b')] }
    const b = { ...newest, build: 'B', images: [image('kernel_b', 'c'), image('main_b', 'd')] }
    const read = new Map(
      [...a.images, ...b.images].map(({ partition, sha256 }) => [partition, digest(sha256)]),
    )
    const names = fen.partitions.map(({ name }) => name)
    expect(names).toEqual(expect.arrayContaining(['kernel_a', 'main_b']))
    expect(partsOn(fen, read, [a, b], 'a').set).toBe('A')
    expect(partsOn(fen, read, [a, b], 'b').set).toBe('B')
    expect(partsOn(fen, read, [a, b]).set).toBe(undefined)
  })

  it('names a part once a build, and leaves out what is never touched', () => {
    expect(stands(of(newest, 'main'), [newest, newest]).parts[0]?.builds).toEqual([newest.build])
    expect(stands([['calib', digest('a'.repeat(64))]]).parts).toEqual([])
  })
})
