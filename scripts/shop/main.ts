/** `plain-slate family check|explain|new FILE`, `plain-slate backup FOLDER [--data DIR]` and `plain-slate restore FOLDER --data DIR`: what the machine does with a whole shop. */
import { dirname, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { ROOT } from '../bootstrap.mjs'
import { CannotGoOn } from '../machine/debian.ts'
import { insertCopy, openDatabase } from '@plain-slate/server'
import type { CopyRow } from '@plain-slate/server'
import { FAMILY_USAGE, familyMain } from './family.ts'
import { copyFailed } from './fault.ts'
import { DATABASE, backup, runningShop } from './backup.ts'
import type { Running } from './backup.ts'
import type { Copy } from './copy.ts'
import { restore } from './restore.ts'

const MIB = 1024 ** 2
const USAGE = `${FAMILY_USAGE}
npx --no -- plain-slate backup FOLDER [--data DIR]    copies the shop that runs from DIR (./data)
npx --no -- plain-slate restore FOLDER --data DIR     makes a shop of a copy in DIR, a new folder`

/** Runs the command; answers the exit code. */
export async function shopMain([verb, ...args]: readonly string[]): Promise<number> {
  if (verb === 'family') return familyMain(args)
  try {
    const read = parseArgs({
      args: [...args],
      options: { data: { type: 'string' }, json: { type: 'boolean' } },
      allowPositionals: true,
    })
    const [folder] = read.positionals
    const { data, json } = read.values
    if (folder === undefined || (verb === 'restore' && data === undefined)) {
      console.error(USAGE)
      return 2
    }
    const dataFolder = resolve(verb === 'restore' ? process.cwd() : ROOT, data ?? 'data')
    const copy =
      verb === 'backup'
        ? await recorded(runningShop(dataFolder), resolve(folder))
        : await restore(resolve(folder), dataFolder)
    console.log(
      json === true ? JSON.stringify(copy) : told(verb ?? '', copy, resolve(folder), dataFolder),
    )
    return 0
  } catch (error) {
    const at = placeOf(error)
    if (at === undefined && !(error instanceof CannotGoOn) && !isOfArgs(error)) throw error
    console.error(at === undefined ? (error as Error).message : copyFailed(error, at).message)
    return 2
  }
}

/** A copy, with how it came out in the shop's own tables: its Counter tells of one that failed. */
async function recorded(shop: Running, folder: string): Promise<Copy> {
  const put = async (row: Pick<CopyRow, 'why' | 'mib' | 'entries'>) => {
    const db = openDatabase(`${shop.url(DATABASE)}?options=-csearch_path%3Dplain_slate,book`)
    await insertCopy(db, { folder, at: new Date().toISOString(), ...row }).finally(() =>
      db.destroy(),
    )
  }
  try {
    const copy = await backup(shop, folder)
    await put({ why: null, mib: Math.ceil(copy.vault.bytes / MIB), entries: copy.book.entries })
    return copy
  } catch (error) {
    const failed = copyFailed(error, folder)
    const { fault, facts } = failed
    await put({ why: { fault, facts }, mib: 0, entries: 0 }).catch(() => undefined)
    throw failed
  }
}
/** Archives whose bytes the shop itself lacks: shelved again, the next copy has them. */
const lackingIn = ({ lacking }: Copy['vault']): string =>
  lacking.length === 0
    ? ''
    : ` The shelf itself lacks the bytes of ${lacking.map(({ name }) => name).join(', ')}, or has others: shelve them again.`

/** Where the file system refused: no room, no rights, no such place; undefined: it is no such error. */
const placeOf = (error: unknown): string | undefined =>
  error instanceof Error && 'syscall' in error && 'path' in error
    ? dirname(String(error.path))
    : undefined

const isOfArgs = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS')

function told(verb: string, { book, vault, shop }: Copy, folder: string, data: string): string {
  const size = `${vault.files} files of the vault (${Math.ceil(vault.bytes / MIB)} MiB)`
  const lacks = lackingIn(vault)
  if (verb === 'backup')
    return `${shop} is copied to ${folder}: ${book.entries} entries of its book, whose chain holds as it was read back, and ${size}, ${vault.copied} of them new. Its secrets lie in ${folder}/secrets: keep them apart.${lacks}`
  return `${shop} is restored in ${data}: ${book.entries} entries of its book and ${size}. Runs that were under way are in doubt until somebody takes them up; end the shop it was copied from before. Start it: npm start -- --data ${data}${lacks}`
}
