import { describe, expect, it } from 'vitest'
import { newest } from '../testing/packages.ts'
import { readManifest } from './manifest.ts'

describe('a manifest', () => {
  it('is read with fields that nobody knows yet kept', () => {
    const raw = { ...newest, moon: 'full' }
    expect(readManifest(raw)).toEqual({ ok: true, value: raw })
  })

  it('of a newer kind is refused by name', () => {
    expect(readManifest({ ...newest, format: 'plain-slate/manifest@2' })).toEqual({
      ok: false,
      refusal: { kind: 'newer', format: 'plain-slate/manifest@2' },
    })
  })

  it('that cannot be read says where', () => {
    const images = [{ ...newest.images[0], sha256: 'abc' }]
    expect(readManifest({ ...newest, images })).toMatchObject({
      refusal: { kind: 'unreadable', path: 'images.0.sha256' },
    })
    expect(readManifest('nonsense')).toMatchObject({ refusal: { kind: 'unreadable' } })
  })
})
