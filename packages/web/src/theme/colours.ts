/**
 * The two sets of colours. Every text pair passes WCAG AA: `colours.test.ts` computes them. Names are
 * the house's: a colour says what it means (good, condition, stop, link, untouchable).
 */
export const LIGHT = {
  desk: '#e3e5e0',
  sheet: '#fbfbf7',
  raised: '#f1f3ee',
  field: '#ffffff',
  ink: '#1d282e',
  ink2: '#4a575e',
  rule: '#cfd4cf',
  line: '#7b8789',
  board: '#25323a',
  board2: '#2f3f49',
  board3: '#3d505c',
  chalk: '#f2f1ea',
  lichen: '#3a6437',
  ochre: '#85520a',
  brick: '#98301f',
  sky: '#1f5a7c',
  plum: '#5c3d75',
  wood: '#b98b4e',
} as const

export const DARK = {
  desk: '#1b252b',
  sheet: '#25323a',
  raised: '#2f3f49',
  field: '#1b252b',
  ink: '#f2f1ea',
  ink2: '#b9c3c6',
  rule: '#3d505c',
  line: '#8b989a',
  board: '#f2f1ea',
  board2: '#dfe3dd',
  board3: '#cfd4cf',
  chalk: '#1d282e',
  lichen: '#9cc796',
  ochre: '#e9b45c',
  brick: '#f09a87',
  sky: '#8fc4e4',
  plum: '#c9a9e2',
  wood: '#b98b4e',
} as const

export type Colours = Readonly<Record<keyof typeof LIGHT, string>>

/** The ledge is a dark board in both themes. */
export const LEDGE = {
  ...DARK,
  sheet: '#2f3f49',
  desk: '#25323a',
  raised: '#435661',
} as const
