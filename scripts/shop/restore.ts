/**
 * Making a shop of a copy, in a data folder of its own. Runs that were under way are in doubt there: a person takes each up,
 * at an epoch above any that the shop it was copied from had reached, so that no device serves both. A restore that was
 * ended half way leaves a folder that no start takes.
 */
import {
  cpSync,
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { bytesNamed, openDatabase } from '@plain-slate/server'
import { openCluster, secretIn } from '../database/cluster.ts'
import { inDoubtIn } from '../database/place.ts'
import { prepare } from '../database/prepare.ts'
import { databaseService, superuserUrl } from '../database/service.ts'
import { CannotGoOn, POSTGRES, ensureDebian } from '../machine/debian.ts'
import { freePort } from '../machine/ports.ts'
import { restoringIn } from '../start/folder.ts'
import { DATABASE, placeIn, tool } from './backup.ts'
import type { Copy } from './copy.ts'
import { DUMP, FILES, FOLDERS, SECRETS, SECRET_FILES, readCopy } from './copy.ts'

/** Makes the shop; answers the copy's account. Throws CannotGoOn with a sentence. */
export async function restore(from: string, dataFolder: string): Promise<Copy> {
  const copy = readCopy(from)
  if (existsSync(dataFolder) && readdirSync(dataFolder).length > 0)
    throw new CannotGoOn(
      `${dataFolder} is not empty. A copy is restored into a folder of its own: choose another with --data DIR.`,
    )
  ensureDebian([POSTGRES])
  mkdirSync(join(dataFolder, 'logs'), { recursive: true })
  writeFileSync(restoringIn(dataFolder), '')
  for (const name of ['vault', ...FOLDERS, ...FILES])
    if (existsSync(join(from, name)))
      cpSync(join(from, name), join(dataFolder, name), { recursive: true })
  for (const name of SECRET_FILES)
    if (existsSync(join(from, SECRETS, name)))
      cpSync(join(from, SECRETS, name), join(dataFolder, name))
  writeFileSync(join(dataFolder, 'kind'), `${copy.kind}\n`)
  writeFileSync(inDoubtIn(dataFolder), '')
  const lacking = new Set(copy.vault.lacking.map(({ sha256 }) => sha256))
  await fillDatabase(from, dataFolder, lacking)
  rmSync(restoringIn(dataFolder))
  return copy
}

async function fillDatabase(
  from: string,
  dataFolder: string,
  lacking: ReadonlySet<string>,
): Promise<void> {
  const cluster = openCluster(dataFolder)
  const port = await freePort()
  const logFile = join(dataFolder, 'logs', 'database.log')
  const handle = await databaseService(cluster, port, { logFile, fast: false }).start(
    () => undefined,
  )
  try {
    const password = secretIn(join(dataFolder, 'application.secret'))
    await prepare((database) => superuserUrl(cluster, port, database), DATABASE, password)
    const url = superuserUrl(cluster, port, DATABASE)
    /* Everything with its owners of before: `prepare` made the application's role, and what it laid out goes. */
    tool(cluster.bin, 'pg_restore', ['--clean', '--if-exists', `--dbname=${url}`, join(from, DUMP)])
    await seeBytes(
      `${url}?options=-csearch_path%3Dplain_slate,book`,
      join(dataFolder, 'vault'),
      lacking,
    )
  } finally {
    await handle.stop()
  }
}

/** Every file that the database names is there and is what its name says, but for what the shop lacked when it was copied. */
async function seeBytes(url: string, vault: string, lacking: ReadonlySet<string>): Promise<void> {
  const db = openDatabase(url)
  const named = await bytesNamed(db).finally(() => db.destroy())
  for (const { sha256, name } of named) {
    if (lacking.has(sha256)) continue
    const hash = createHash('sha256')
    const file = placeIn(vault, sha256)
    if (existsSync(file))
      for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer)
    if (hash.digest('hex') !== sha256)
      throw new CannotGoOn(
        `The copy is damaged: the bytes of ${name} are not what they were. Take an earlier copy.`,
      )
  }
}
