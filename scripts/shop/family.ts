/**
 * `plain-slate family check|explain|new FILE`: what is wrong with a family's file, place by place; what it says and what it
 * would do, in words; a commented file to begin with. Without a server.
 */
import { copyFileSync, constants, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Family } from '@plain-slate/core'
import { trialOf } from '@plain-slate/core'
import { readFamily } from '@plain-slate/server'
import { familyWords, neverLines, speaker } from '@plain-slate/texts'
import { ROOT } from '../bootstrap.mjs'

const TEMPLATE = join(ROOT, 'docs/family-template.yaml')
const say = speaker('en-GB')

export const FAMILY_USAGE = `npx --no -- plain-slate family check FILE …            what is wrong with a family’s file, by its lines
npx --no -- plain-slate family explain FILE …          what it says and would do, in words
npx --no -- plain-slate family new FILE                a commented file to begin a family with`

/** Runs one of the three; answers 0 where all is sound, 1 where a file is not, 2 where one cannot be read or written. */
export function familyMain([act, ...files]: readonly string[]): number {
  const [file] = files
  if (file === undefined || (act === 'new' && files.length > 1)) return usage()
  if (act === 'check') return Math.max(...files.map((one) => withFamily(one, checked)))
  if (act === 'explain') return Math.max(...files.map((one) => withFamily(one, explained)))
  return act === 'new' ? begun(file) : usage()
}

function usage(): number {
  console.error(FAMILY_USAGE)
  return 2
}

/** Reads a file and does something with its family; names every place that is wrong. */
function withFamily(file: string, act: (file: string, family: Family) => void): number {
  let text: string
  try {
    text = readFileSync(file, 'utf8')
  } catch {
    console.error(`${file} cannot be read.`)
    return 2
  }
  const read = readFamily(text)
  if (read.ok) {
    act(file, read.value)
    return 0
  }
  for (const { line, path, says } of read.refusal)
    console.error(`${file}, line ${line}${path === '' ? '' : `, ${path}`}: ${says}`)
  return 1
}

function checked(file: string, family: Family): void {
  const { id, version, maker, models, modes, partitions } = family
  console.log(
    `${file}: ${id} version ${version} of ${maker} is sound: ${models.length} models, ${modes.length} modes, ${partitions.length} partitions.`,
  )
  const trial = trialOf(family)
  console.log(say('trial.never', { n: trial.never }))
  for (const { what, says } of neverLines(say, family, trial)) console.log(`  ${what}: ${says}`)
}

function explained(_file: string, family: Family): void {
  for (const { head, lines } of familyWords(say, family, trialOf(family)))
    console.log([`\n${head}`, ...lines.map((line) => `  ${line}`)].join('\n'))
}

/** A file that is there is never written over. */
function begun(file: string): number {
  try {
    copyFileSync(TEMPLATE, file, constants.COPYFILE_EXCL)
  } catch (error) {
    const there = (error as NodeJS.ErrnoException).code === 'EEXIST'
    console.error(
      there
        ? `${file} is there already: it was left as it is. Name a new file.`
        : `${file} cannot be written: ${(error as Error).message}`,
    )
    return 2
  }
  console.log(
    `${file} is a family to begin with. Change it part by part; after each: npx --no -- plain-slate family check ${file}`,
  )
  return 0
}
