/** Why a copy failed: thrown as a code with its facts, said from the one catalogue; told to the shop, and to the terminal. */
import type { CopyFault } from '@plain-slate/core'
import type { CopyWhy } from '@plain-slate/server'
import { sayWithGaps } from '@plain-slate/texts'
import { CannotGoOn } from '../machine/debian.ts'

export class CopyFailed extends CannotGoOn implements CopyWhy {
  readonly fault: CopyFault
  readonly facts: CopyWhy['facts']

  constructor(fault: CopyFault, facts: CopyWhy['facts']) {
    const says = sayWithGaps('en-GB', `copies.why.${fault}`, facts)
    super(`${says.slice(0, 1).toUpperCase()}${says.slice(1)}`)
    this.fault = fault
    this.facts = facts
  }
}

/** Characters of what another tool said. */
const SAYS_MOST = 200
const NO_ROOM = ['ENOSPC', 'EDQUOT']

/** Any error of making a copy in a folder, as a copy's own. */
export function copyFailed(error: unknown, folder: string): CopyFailed {
  if (error instanceof CopyFailed) return error
  const { code, message } = error instanceof Error ? (error as NodeJS.ErrnoException) : {}
  const says = (message ?? String(error)).slice(0, SAYS_MOST)
  if (code !== undefined && NO_ROOM.includes(code)) return new CopyFailed('no-room', { folder })
  const isOfPlace = error instanceof Error && 'syscall' in error && 'path' in error
  return isOfPlace
    ? new CopyFailed('no-place', { folder, says: code ?? says })
    : new CopyFailed('other', { says })
}
