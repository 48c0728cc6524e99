import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Burst } from './scan.ts'
import { NO_BURST, SCAN_GAP_MS, press } from './scan.ts'

/** Types a text with a gap before each key; answers what was scanned. */
function type(text: string, gap: number, end = 'Enter'): string[] {
  let burst: Burst = NO_BURST
  const scans: string[] = []
  for (const [index, key] of [...text, end].entries()) {
    const pressed = press(burst, { key, at: index * gap, repeat: false })
    if (pressed.kind === 'scan') scans.push(pressed.text)
    burst = pressed.kind === 'typing' ? pressed.burst : NO_BURST
  }
  return scans
}

describe('a scanner', () => {
  it('is told by four characters closer than 40 ms that end in Enter', () => {
    expect(type('0417', 10)).toEqual(['0417'])
    expect(type('0417', SCAN_GAP_MS - 1)).toEqual(['0417'])
    expect(type('0417', SCAN_GAP_MS)).toEqual([])
    expect(type('041', 10)).toEqual([])
    expect(type('0417', 10, 'Tab')).toEqual([])
  })

  it('is told whatever it reads, and never by a person who types', () => {
    const label = fc.stringMatching(/^[!-~]{4,40}$/)
    fc.assert(
      fc.property(label, fc.nat(39), (text, gap) => {
        expect(type(text, gap)).toEqual([text])
      }),
    )
    fc.assert(
      fc.property(label, fc.integer({ min: 40, max: 400 }), (text, gap) => {
        expect(type(text, gap)).toEqual([])
      }),
    )
  })

  it('may press Shift between its characters', () => {
    let burst: Burst = NO_BURST
    const keys = ['Shift', 'H', 'Shift', 'K', '1', '4']
    for (const [index, key] of keys.entries()) {
      const pressed = press(burst, { key, at: index * 5, repeat: false })
      if (pressed.kind === 'typing') burst = pressed.burst
    }
    expect(press(burst, { key: 'Enter', at: 30, repeat: false })).toEqual({
      kind: 'scan',
      text: 'HK14',
    })
  })

  it('is not a key that somebody holds down', () => {
    let burst: Burst = NO_BURST
    for (let at = 0; at < 10; at += 1) {
      const pressed = press(burst, { key: 'a', at: at * 30, repeat: at > 0 })
      if (pressed.kind === 'typing') burst = pressed.burst
    }
    expect(press(burst, { key: 'Enter', at: 300, repeat: false }).kind).toBe('typing')
  })
})
