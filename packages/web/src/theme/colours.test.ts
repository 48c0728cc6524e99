import { describe, expect, it } from 'vitest'
import { DARK, LEDGE, LIGHT } from './colours.ts'
import type { Colours } from './colours.ts'

/** WCAG 2.2, relative luminance and contrast ratio. */
function luminance(hex: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const share = Number.parseInt(hex.slice(at, at + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}
function contrast(one: string, other: string): number {
  const [dark = 0, light = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b)
  return (light + 0.05) / (dark + 0.05)
}

const TEXTS = ['ink', 'ink2', 'lichen', 'ochre', 'brick', 'sky', 'plum'] as const
const GROUNDS = ['sheet', 'desk', 'raised', 'field'] as const
const SETS: Readonly<Record<string, Colours>> = { light: LIGHT, dark: DARK }

describe.each(Object.entries(SETS))('the %s set', (_name, set) => {
  it.each(TEXTS)('has %s readable on every ground (AA, 4.5)', (text) => {
    for (const ground of GROUNDS)
      expect(contrast(set[text], set[ground]), ground).toBeGreaterThanOrEqual(4.5)
  })

  it('has what is written on the board readable', () => {
    for (const board of ['board', 'board2', 'board3'] as const)
      expect(contrast(set.chalk, set[board])).toBeGreaterThanOrEqual(4.5)
  })

  it('has the edge of a field seen against what it lies on (3)', () => {
    expect(contrast(set.line, set.sheet)).toBeGreaterThanOrEqual(3)
  })
})

describe('the ledge', () => {
  it('is readable in both themes, hatched or not', () => {
    for (const ground of [LEDGE.sheet, LEDGE.desk])
      for (const text of [LEDGE.ink, LEDGE.ink2, LEDGE.ochre])
        expect(contrast(text, ground)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(LEDGE.ink, LEDGE.raised)).toBeGreaterThanOrEqual(4.5)
  })
})
