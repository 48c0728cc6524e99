/**
 * The order in which test files run: what a change touches first, so that whoever waits learns soon what it broke. Reads
 * what git says was changed since the commit before; where it says nothing, the order is Vitest's own.
 */
import { spawnSync } from 'node:child_process'
import { dirname, relative } from 'node:path'
import type { TestSpecification } from 'vitest/node'
import { BaseSequencer } from 'vitest/node'
import { ROOT } from '../bootstrap.mjs'

/** Files in their order, those first that were changed or stand in a room where something was. */
export function touchedFirst<File>(
  files: readonly File[],
  pathOf: (file: File) => string,
  changed: readonly string[],
): readonly File[] {
  const rooms = new Set(changed.map((path) => dirname(path)))
  const isTouched = (file: File) => rooms.has(dirname(pathOf(file)))
  return [...files.filter(isTouched), ...files.filter((file) => !isTouched(file))]
}

export class TouchedFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files)
    return [...touchedFirst(sorted, ({ moduleId }) => relative(ROOT, moduleId), changedFiles())]
  }
}

/** What is changed and not committed, and what the last commit changed; none where there is no git. */
function changedFiles(): readonly string[] {
  const asked = [
    ['diff', '--name-only', 'HEAD'],
    ['diff', '--name-only', 'HEAD~1', 'HEAD'],
  ]
  return asked.flatMap((args) => {
    const { status, stdout } = spawnSync('git', args, { cwd: ROOT, encoding: 'utf8' })
    return status === 0 ? stdout.split('\n').filter((line) => line !== '') : []
  })
}
