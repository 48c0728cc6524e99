/**
 * Hand back: what is undone of the preparation, what is put back on it, what is given back with it. Reads lines, what was
 * prepared on the slip, when the device was last looked at over the link; gives what is asked, each once, and the
 * lines that still count. A copy of the data stays until its owner says that all is well: that is aftercare.
 */
import type { Line } from '../terms/line.ts'
import { ACCESSORIES } from '../terms/line.ts'
import type { Lines } from './intake.ts'
import { said } from './intake.ts'

/** What was done to prepare the device, on any piece of work of its slip. */
export type Prepared = {
  /** Its link permission was given, with the bench's key. */
  readonly permission: boolean
  /** A copy was left on it or on its card, which no step took away. */
  readonly copies: boolean
  /** Somebody was named who puts a copy of the data back. */
  readonly restore: boolean
  /** Add-ons of its owner's were put off. */
  readonly addons: boolean
}
export const UNPREPARED: Prepared = {
  permission: false,
  copies: false,
  restore: false,
  addons: false,
}

/** Topics of what is undone, put back and given back; what was never done or lost is not asked for. */
export function handBackTopics(lines: Lines, prepared: Prepared): readonly string[] {
  const theirs = ACCESSORIES.filter((one) => said(lines, `accessory.${one}`) === 'here')
  return [
    ...(prepared.restore ? ['back.backup'] : []),
    ...(prepared.addons ? ['back.addons'] : []),
    ...(prepared.permission ? ['undo.permission', 'undo.key'] : []),
    ...(prepared.copies ? ['undo.copies'] : []),
    ...theirs.map((one) => `back.${one}`),
    'back.told',
  ]
}

/** What was undone before the device was last looked at over the link is to be seen again: the look needed it. */
export const stillUndone = <One extends Pick<Line, 'topic' | 'at'>>(
  lines: readonly One[],
  lookedAt: number | undefined,
): readonly One[] =>
  lines.filter(({ topic, at }) => !topic.startsWith('undo.') || at >= (lookedAt ?? 0))
