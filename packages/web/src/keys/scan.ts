/**
 * Telling a barcode scanner from a person. Reads key presses with their times, gives "a scan ended"
 * or nothing. Four or more characters closer than 40 ms each that end in Enter are a scan; repeats of
 * a held key do not count. Knows no fields and no timers: `keyboard.ts` does.
 */
export const SCAN_LEAST = 4
export const SCAN_GAP_MS = 40

/** The characters that came fast enough so far, and when the last of them came. */
export type Burst = { readonly text: string; readonly lastAt: number }
export const NO_BURST: Burst = { text: '', lastAt: Number.NEGATIVE_INFINITY }

export type Press = {
  readonly key: string
  /** ms on any steady clock. */
  readonly at: number
  readonly repeat: boolean
}

export type Pressed =
  | { readonly kind: 'typing'; readonly burst: Burst; readonly begins: boolean }
  | { readonly kind: 'scan'; readonly text: string }

/** Takes one more press. `begins`: a burst may begin here, so a field's text is worth remembering. */
export function press(burst: Burst, { key, at, repeat }: Press): Pressed {
  const fast = at - burst.lastAt < SCAN_GAP_MS
  if (key === 'Enter' && fast && burst.text.length >= SCAN_LEAST)
    return { kind: 'scan', text: burst.text }
  if (key === 'Shift' || repeat) return { kind: 'typing', burst, begins: false }
  if ([...key].length !== 1) return { kind: 'typing', burst: NO_BURST, begins: false }
  const text = fast ? burst.text + key : key
  return { kind: 'typing', burst: { text, lastAt: at }, begins: !fast }
}
