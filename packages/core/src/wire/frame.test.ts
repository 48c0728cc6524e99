import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { HEADER_MAX, PAYLOAD_MAX, encodeFrame, frameDecoder } from './frame.ts'
import type { Json } from '../canon/canon.ts'
import type { Frame } from './frame.ts'
import { isWriting, requestSchema } from './verbs.ts'

const frames = fc.array(
  fc.record({
    header: fc.dictionary(fc.stringMatching(/^[a-z]{1,8}$/), fc.oneof(fc.string(), fc.integer())),
    payload: fc.uint8Array({ maxLength: 200 }),
  }),
  { maxLength: 6 },
)

/** A header as it was given: the payload's length is the codec's own. */
const withoutPayload = (header: Readonly<Record<string, Json>>): Record<string, Json> =>
  Object.fromEntries(Object.entries(header).filter(([key]) => key !== 'payload'))

describe('frames', () => {
  it('come out as they went in, however the stream is cut', () => {
    fc.assert(
      fc.property(
        frames,
        fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1 }),
        (sent, cuts) => {
          const clean = sent.map(({ header, payload }) => {
            const rest = withoutPayload(header)
            return { header: rest, payload }
          })
          const stream = clean.flatMap(({ header, payload }) => [...encodeFrame(header, payload)])
          const decoder = frameDecoder()
          const got: Frame[] = []
          for (let at = 0, cut = 0; at < stream.length; cut += 1) {
            const next = at + (cuts[cut % cuts.length] ?? 1)
            const pushed = decoder.push(Uint8Array.from(stream.slice(at, next)))
            if (pushed.ok) got.push(...pushed.value)
            at = next
          }
          expect(decoder.waiting()).toBe(0)
          expect(got.map(({ payload }) => [...payload])).toEqual(
            clean.map(({ payload }) => [...payload]),
          )
          expect(got.map(({ header }) => withoutPayload(header))).toEqual(
            clean.map(({ header }) => header),
          )
        },
      ),
      { numRuns: 60 },
    )
  })

  it('that lie about a length end the stream before anything is kept for them', () => {
    const long = new Uint8Array(8)
    new DataView(long.buffer).setUint32(0, HEADER_MAX + 1)
    expect(frameDecoder().push(long)).toEqual({
      ok: false,
      refusal: { at: 0, rule: 'header-too-long', value: HEADER_MAX + 1 },
    })
    for (const payload of [PAYLOAD_MAX + 1, -1, 'much']) {
      const pushed = frameDecoder().push(encodeFrame({ payload }))
      expect(pushed).toMatchObject({ refusal: { rule: 'payload-too-long' } })
    }
  })

  it('that are no JSON say at which byte of the stream', () => {
    const decoder = frameDecoder()
    const good = encodeFrame({ verb: 'facts' })
    const bad = Uint8Array.from([0, 0, 0, 2, 0xff, 0xfe])
    expect(decoder.push(Uint8Array.from([...good, ...bad]))).toMatchObject({
      refusal: { at: good.length, rule: 'header-not-json' },
    })
  })

  it('past the limits are a bug of whoever sends them', () => {
    expect(() => encodeFrame({}, new Uint8Array(PAYLOAD_MAX + 1))).toThrow(RangeError)
    expect(() => encodeFrame({ text: 'x'.repeat(HEADER_MAX) })).toThrow(RangeError)
  })
})

describe('verbs', () => {
  it('that write carry run and epoch', () => {
    for (const option of requestSchema.options) {
      const verb = option.shape.verb.value
      expect('epoch' in option.shape, verb).toBe(isWriting(verb) || verb === 'hello')
    }
  })
})
