/**
 * A single copy in doubt: a part that is kept once and needed to reach a writing mode, the table, or the lock, which
 * a run began on and has not proven. Nothing may restart or lose its power then; the ways on are to look again, to
 * send again, another cable. Reads a run's commands and its journal; gives what is in doubt. It ends when the
 * device's own digest of the part was the wanted one.
 */
import type { Command } from '../command/command.ts'
import { roleOf } from '../family/layout.ts'
import type { Family } from '../family/profile.ts'
import type { JournalEntry } from './journal.ts'
import { placeOf } from './journal.ts'

/** The partition, or the lock, that may be neither what it was nor what it is to be; undefined: none. */
export function singleCopyInDoubt(
  family: Family,
  commands: readonly Command[],
  journal: readonly JournalEntry[],
): string | undefined {
  const { next, inDoubt } = placeOf(journal)
  const at = commands[next]
  if (inDoubt && at?.kind === 'lock') return 'lock'
  const begun = commands.slice(0, inDoubt ? next + 1 : next)
  const written = begun.flatMap((one, index) =>
    one.kind === 'put' && isSingle(family, one.partition) ? [{ index, ...one }] : [],
  )
  return written.find(
    ({ index, partition, image }) =>
      !begun.some(
        (one, later) =>
          later > index &&
          later < next &&
          one.kind === 'digest' &&
          one.partition === partition &&
          one.image === image,
      ),
  )?.partition
}

/** Kept once and needed to reach a mode that writes: a loader without a second, the table. */
function isSingle(family: Family, partition: string): boolean {
  const role = roleOf(family, partition)
  if (role === 'table') return true
  return role === 'loader' && family.keptOnce.includes('loader')
}
