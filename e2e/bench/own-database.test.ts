/** A shop on a PostgreSQL of one's own: what its role may not do is told, and nothing is promised that cannot be kept. */
import { migrate, openDatabase, readCopies } from '@plain-slate/server'
import { asSuperuser, cloneTemplate } from '@plain-slate/server/testing'
import { randomBytes } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { keepSteady } from '../../scripts/database/steady.ts'
import { folderDue } from '../../scripts/shop/nightly.ts'

const steadyBody = async (url: string): Promise<string> => {
  const db = openDatabase(url)
  const { rows } = (await db
    .raw(`select prosrc from pg_proc where proname = 'steady_now'`)
    .finally(() => db.destroy())) as { rows: { prosrc: string }[] }
  return rows.map(({ prosrc }) => prosrc).join('\n')
}

/** Tables in the schema that a database of anybody's own has. */
async function ownDatabase(superuserUrl: string): Promise<string> {
  const name = `own_${randomBytes(6).toString('hex')}`
  await asSuperuser(superuserUrl, `create database ${name}`)
  const url = new URL(superuserUrl)
  url.pathname = name
  const db = openDatabase(url.href)
  await migrate(db).finally(() => db.destroy())
  return url.href
}

describe('a shop on a PostgreSQL of one’s own', () => {
  it('goes by the machine’s own clock where its role may read it, in whichever schema, else says so and changes nothing', async () => {
    const { databaseUrl, superuserUrl } = await cloneTemplate('empty')
    const own = await ownDatabase(superuserUrl)
    expect(await steadyBody(own)).not.toContain('/proc/uptime')
    expect(await keepSteady(own)).toBe(true)
    expect(await steadyBody(own)).toContain('/proc/uptime')
    const before = await steadyBody(databaseUrl)
    expect(await keepSteady(databaseUrl)).toBe(false)
    expect(await steadyBody(databaseUrl)).toBe(before)
  })

  it('whose copies are named tells that none can be made by the shop, at once and not every minute', async () => {
    const { databaseUrl, superuserUrl } = await cloneTemplate('demo')
    expect(await folderDue(databaseUrl, false)).toBeUndefined()
    const named = `update plain_slate.shop set copy_folder = '/srv/copies', copy_named_at = now()`
    await asSuperuser(superuserUrl, named)
    expect(await folderDue(databaseUrl, true)).toBe('/srv/copies')
    expect(await folderDue(databaseUrl, false)).toBeUndefined()
    expect(await folderDue(databaseUrl, false)).toBeUndefined()
    const db = openDatabase(databaseUrl)
    const tries = await db('copies').count('* as n').first()
    const { last } = await readCopies(db).finally(() => db.destroy())
    expect([last?.why?.fault, Number(tries?.['n'])]).toEqual(['other-database', 1])
  })
})
