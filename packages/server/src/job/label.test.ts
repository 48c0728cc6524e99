/** A slip's label: what is printed on it is read back by a scanner, and what is personal is not on it. */
import { inflateSync } from 'node:zlib'
import type { Slip } from '@plain-slate/api'
import jsqr from 'jsqr'
import { describe, expect, it } from 'vitest'
import { codesOf, drawLabel, labelOf } from './label.ts'

const slip = (more: Partial<Slip> = {}): Pick<Parameters<typeof labelOf>[0], 'slip'> => ({
  slip: {
    number: '0417',
    device: 'Brakken H2K',
    model: 'BRAK-H2K',
    customer: 'Ferry line, handheld 14',
    intent: 'update',
    promise: 'stored tickets',
    words: 'The gate asks for the newest build.',
    stage: 'intake',
    state: 'open',
    due: '2026-10-15T16:30:00.000Z',
    openedAt: '2026-10-15T08:35:00.000Z',
    openedBy: 'Ilse Maro',
    version: 1,
    ...more,
  } as Slip,
})

const SIGNATURE = 8
/** A PNG of 8 bits a channel with alpha, whose lines are not filtered. */
function pixelsOf(png: Buffer) {
  const [width, height] = [png.readUInt32BE(16), png.readUInt32BE(20)]
  const parts: Buffer[] = []
  for (let at = SIGNATURE; at < png.length;) {
    const length = png.readUInt32BE(at)
    if (png.toString('latin1', at + 4, at + 8) === 'IDAT')
      parts.push(png.subarray(at + 8, at + 8 + length))
    at += length + 12
  }
  const raw = inflateSync(Buffer.concat(parts))
  const line = width * 4
  const rgba = new Uint8ClampedArray(width * height * 4)
  for (let y = 0; y < height; y += 1) {
    const from = y * (line + 1)
    expect(raw[from]).toBe(0)
    rgba.set(raw.subarray(from + 1, from + 1 + line), y * line)
  }
  /* What nothing was drawn on is paper. */
  for (let at = 0; at < rgba.length; at += 4) if (rgba[at + 3] === 0) rgba.fill(255, at, at + 4)
  return { width, height, rgba }
}

describe('a label', () => {
  it('says number, device, intent and due, and nothing of its customer', () => {
    const said = labelOf(slip(), 'UTC')
    expect(said).toMatchObject({ number: '0417', device: 'Brakken H2K', code: '0417' })
    expect(said.under).toContain('due 2026-10-15 16:30')
    expect(labelOf(slip(), 'Asia/Tokyo').under).toContain('due 2026-10-16 01:30')
    expect(JSON.stringify(said)).not.toMatch(/Ferry|ticket|gate/)
    expect(labelOf(slip({ due: null }), 'UTC').under).toContain('no time agreed')
  })

  it.each(['0417', '0999', '12345'])('bears a QR code that reads %s', async (number) => {
    const { qr } = await codesOf(labelOf(slip({ number }), 'UTC'))
    const { rgba, width, height } = pixelsOf(qr)
    expect(jsqr(rgba, width, height)?.data).toBe(number)
  })

  it('bears bars that differ where the numbers do, with room beside them', async () => {
    const { bars } = await codesOf(labelOf(slip(), 'UTC'))
    const { bars: others } = await codesOf(labelOf(slip({ number: '0418' }), 'UTC'))
    const { rgba, width } = pixelsOf(bars)
    const dark = Array.from({ length: width }, (_, x) => (rgba[x * 4] ?? 255) < 128)
    expect(dark.slice(0, 20)).not.toContain(true)
    expect(dark.slice(-20)).not.toContain(true)
    expect(dark.filter(Boolean).length).toBeGreaterThan(50)
    expect(bars.equals(others)).toBe(false)
  })

  it('is one page of a label’s own size', async () => {
    const pdf = (await drawLabel(labelOf(slip(), 'UTC'))).toString('latin1')
    expect(pdf).toMatch(/MediaBox \[0 0 175\.7\d* 82\.2\d*\]/)
    expect(pdf.match(/\/Type \/Page\b/g)).toHaveLength(1)
  })
})
