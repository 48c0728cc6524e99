/** A disk that is full is nobody's fault of ours: it is named, with what is free, and what was acknowledged stays. */
import { statfsSync } from 'node:fs'
import type { Refusal } from './refusal.ts'

const MIB = 1024 ** 2

/** PostgreSQL's "disk full" (SQLSTATE 53100), the file system's own word, and what the driver says of either. */
export function isDiskFull(error: unknown): boolean {
  if (!(error instanceof Error)) return false
  const code = 'code' in error ? String(error.code) : ''
  return ['53100', 'ENOSPC', 'EDQUOT'].includes(code) || error.message.includes('No space left')
}

/** The refusal that names the folder and what is free there. */
export const diskFull = (folder: string): Refusal => ({
  code: 'disk.full',
  facts: { folder, mib: freeMiB(folder) },
})

function freeMiB(folder: string): number {
  try {
    const { bavail, bsize } = statfsSync(folder)
    return Math.floor((bavail * bsize) / MIB)
  } catch {
    return 0
  }
}
