import { describe, expect, it } from 'vitest'
import { newest } from '../testing/packages.ts'
import { manifestIn, readManifest, whyUnread } from './manifest.ts'

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

  it('with a NUL or half a character anywhere is refused, in fields nobody knows too', () => {
    for (const odd of [{ moon: 'a\0b' }, { title: 'a\0b' }, { deep: [{ '\ud800': 1 }] }])
      expect(readManifest({ ...newest, ...odd })).toMatchObject({
        refusal: { kind: 'unreadable', path: '' },
      })
    expect(readManifest({ ...newest, title: 'a\u001bb' })).toMatchObject({
      refusal: { kind: 'unreadable', path: 'title' },
    })
    expect(readManifest({ ...newest, moon: 'full \u{1f315}' }).ok).toBe(true)
  })

  it('that cannot be read says where', () => {
    const images = [{ ...newest.images[0], sha256: 'abc' }]
    expect(readManifest({ ...newest, images })).toMatchObject({
      refusal: { kind: 'unreadable', path: 'images.0.sha256' },
    })
    const why = (text: string) => {
      const read = manifestIn(text)
      return read.ok ? '' : whyUnread(read.refusal)
    }
    expect(why(JSON.stringify({ ...newest, images }))).toContain('images.0.sha256: ')
    expect(['', ' ', '{', JSON.stringify({ format: 'plain-slate/manifest@9' })].map(why)).toEqual([
      'it is empty',
      'it is empty',
      'it is no JSON',
      'newer format plain-slate/manifest@9',
    ])
    expect(why(JSON.stringify(newest))).toBe('')
    expect(readManifest('nonsense')).toMatchObject({ refusal: { kind: 'unreadable' } })
  })
})
