/**
 * How a run stands, from its commands and its journal alone: per partition what is new, old and in
 * doubt, and the word the ledge shows. Reads what is kept of a run; gives words' codes, no sentences.
 */
import type { Command } from '../command/command.ts'
import type { ModeKind } from '../terms/device.ts'
import type { JournalEntry } from './journal.ts'
import { placeOf } from './journal.ts'
import type { Phase } from './run.ts'

export type PartStanding = {
  readonly partition: string
  readonly image: string
  readonly bytes: number
  /** Bytes of pieces that are kept for certain, and of the piece that is in doubt. */
  readonly kept: number
  readonly doubt: number
  /** The device's own digest of the whole was the image's. */
  readonly readBack: boolean
}

/** Every image of a run, in the order of writing. */
export function standingOf(
  commands: readonly Command[],
  journal: readonly JournalEntry[],
): readonly PartStanding[] {
  const { next, inDoubt } = placeOf(journal)
  const parts = new Map<string, PartStanding>()
  commands.forEach((command, index) => {
    if (command.kind !== 'put' && command.kind !== 'digest') return
    const key = `${command.partition} ${command.image}`
    const { partition, image } = command
    const part = parts.get(key) ?? {
      partition,
      image,
      bytes: 0,
      kept: 0,
      doubt: 0,
      readBack: false,
    }
    if (command.kind === 'digest') {
      parts.set(key, { ...part, readBack: index < next })
      return
    }
    const doubtful = inDoubt && index === next
    parts.set(key, {
      ...part,
      bytes: part.bytes + command.size,
      kept: part.kept + (index < next ? command.size : 0),
      doubt: part.doubt + (doubtful ? command.size : 0),
    })
  })
  /* What is digested and not written was left alone: nothing of it is new, or in doubt. */
  return [...parts.values()].filter(({ bytes }) => bytes > 0)
}

/** The state words of the ledge: a closed list. */
export const LEDGE_WORDS = [
  'free',
  'odd',
  'not-seen',
  'charging',
  'system',
  'writing',
  'rescue',
  'loop',
  'hang',
  'answers',
  'hands-now',
  'hands-off',
  'first-start',
  'done',
  'stopped',
  'in-doubt',
] as const
export type LedgeWord = (typeof LEDGE_WORDS)[number]

/** What is known of a port: its run, and the device that answers there. */
export type PortSight = {
  readonly run:
    | {
        readonly phase: Phase
        readonly command: Command | undefined
        /** Nobody holds the run's lease: whoever drove it is gone. */
        readonly ownerless: boolean
      }
    | undefined
  /** What the mode is for in which it is seen; undefined: nobody answers. */
  readonly seen: ModeKind | 'unknown' | undefined
  /** Something answers there that cannot be used. */
  readonly odd?: boolean
}

/** The word of a port by what the mode is for that answers there; of a family nobody knows, that it answers. */
const WORD_OF: Readonly<Record<ModeKind | 'unknown', LedgeWord>> = {
  off: 'charging',
  hang: 'hang',
  loop: 'loop',
  system: 'system',
  writing: 'writing',
  rescue: 'rescue',
  unknown: 'answers',
}

/** The word a port's tile says first. */
export function ledgeWord({ run, seen, odd }: PortSight): LedgeWord {
  if (run === undefined && seen === undefined) return odd === true ? 'odd' : 'free'
  if (run === undefined) return seen === undefined ? 'charging' : WORD_OF[seen]
  const { phase, command, ownerless } = run
  switch (phase.kind) {
    case 'ended':
      return 'done'
    case 'stopped':
      return 'stopped'
    case 'lost':
    case 'looking':
      return 'in-doubt'
    case 'doing':
    case 'writing-down':
      if (ownerless) return 'in-doubt'
      if (command?.kind === 'person') return 'hands-now'
      if (command?.kind === 'meet') return seen === undefined ? 'not-seen' : 'hands-now'
      return command?.kind === 'restart' && command.first !== undefined
        ? 'first-start'
        : 'hands-off'
  }
}
