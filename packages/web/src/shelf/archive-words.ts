/** How far an archive is, and how reading it ended, in words. */
import type { Archive } from '@plain-slate/api'
import type { Say } from '@plain-slate/texts'
import { refusalWords } from '@plain-slate/texts'

const MIB = 1024 ** 2
export const roundMib = (bytes: number): number => Math.max(1, Math.round(bytes / MIB))

export function archiveWords(say: Say, one: Archive): string {
  switch (one.state) {
    case 'reading':
      return say('archive.state.reading', { done: roundMib(one.done), bytes: roundMib(one.bytes) })
    case 'failed':
      return say('archive.state.failed', { why: one.trouble ?? '' })
    case 'refused':
      return one.refusal === null ? '' : refusalWords(say, one.refusal)
    case 'whole':
      return say('archive.state.whole', { entries: one.entries })
  }
}
