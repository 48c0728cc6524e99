/** Builds are made again when what they follow from has changed: a digest of it lies beside each. Plain JavaScript: the shell tool asks it before anything is built. */
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'

/**
 * The digest of files and folders, named from the repository's root; tests do not count.
 * @param {readonly string[]} sources
 */
export function digestOf(sources) {
  const hash = createHash('sha256')
  for (const path of sources.map((source) => join(ROOT, source)).flatMap(filesIn))
    hash.update(path).update(readFileSync(path))
  return hash.digest('hex')
}

/**
 * Whether the stamp says that its build is of these very sources.
 * @param {string} stamp
 * @param {string} digest
 */
export const isOf = (stamp, digest) => existsSync(stamp) && readFileSync(stamp, 'utf8') === digest

/** @param {string} path */
function filesIn(path) {
  if (/\.[a-z]+$/.test(path)) return [path]
  return readdirSync(path, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !entry.name.endsWith('.test.ts'))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort()
}
