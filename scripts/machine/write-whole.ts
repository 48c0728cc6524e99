/** Files that are there whole or not at all, however their writer ends. */
import { renameSync, writeFileSync } from 'node:fs'

/** Writes beside and puts in place. `mode`: of the file; others' rights are the usual ones. */
export function writeWhole(file: string, text: string, mode = 0o644): void {
  const beside = `${file}.new`
  writeFileSync(beside, text, { mode })
  renameSync(beside, file)
}
