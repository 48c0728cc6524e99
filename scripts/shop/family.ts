/** `plain-slate family check FILE …`: what is wrong with a family's file, place by place, without a server. */
import { readFileSync } from 'node:fs'
import { readFamily } from '@plain-slate/server'

/** Checks each file; answers 0 where all are sound, 1 where one is not, 2 where one cannot be read. */
export function checkFamilies(files: readonly string[]): number {
  return Math.max(...files.map(checkOne))
}

function checkOne(file: string): number {
  let text: string
  try {
    text = readFileSync(file, 'utf8')
  } catch {
    console.error(`${file} cannot be read.`)
    return 2
  }
  const read = readFamily(text)
  if (read.ok) {
    const { id, version, maker, models, modes, partitions } = read.value
    console.log(
      `${file}: ${id} version ${version} of ${maker} is sound: ${models.length} models, ${modes.length} modes, ${partitions.length} partitions.`,
    )
    return 0
  }
  for (const { line, path, says } of read.refusal)
    console.error(`${file}, line ${line}${path === '' ? '' : `, ${path}`}: ${says}`)
  return 1
}
