/** A tally as it was put down on a slip: "items bytes opens". */
import type { Job, LineShown } from '@plain-slate/api'

export function tallyOf(
  lines: readonly LineShown[],
  when: 'before' | 'after',
): Job['tally']['before'] {
  const line = lines.findLast(({ topic }) => topic === `tally.${when}`)
  if (line === undefined) return null
  const [items = '0', bytes = '0', opens = ''] = line.answer.split(' ')
  return { items: Number(items), bytes: Number(bytes), opens: opens === 'opens', at: line.at }
}
