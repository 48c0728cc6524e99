import type { AddressInfo, Socket } from 'node:net'
import { connect, createServer } from 'node:net'
import { afterAll, describe, expect, it } from 'vitest'
import { cloneTemplate, openBench } from '../testing/bench.ts'
import { isAway, migrate, openDatabase, readiness } from './database.ts'

/** Something between server and database that can be pulled out and put back. */
async function cable(url: string) {
  const target = new URL(url)
  const upstream = Number(target.port)
  const open = new Set<Socket>()
  let plugged = true
  const server = createServer((near) => {
    if (!plugged) return near.destroy()
    const far = connect(upstream, '127.0.0.1')
    for (const socket of [near, far]) {
      open.add(socket)
      socket
        .on('error', () => undefined)
        .on('close', () => [near, far].forEach((end) => end.destroy()))
    }
    near.pipe(far).pipe(near)
    return undefined
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  target.port = String((server.address() as AddressInfo).port)
  return {
    url: target.href,
    pull: () => {
      plugged = false
      open.forEach((socket) => socket.destroy())
    },
    plug: () => void (plugged = true),
    /** Takes nobody new; whoever is connected stays. */
    refuse: () => void (plugged = false),
    close: () => server.close(),
  }
}

describe('a server whose database is away', () => {
  it('says so in a sentence, lives, and works again when it is back', async () => {
    const held: { cable?: Awaited<ReturnType<typeof cable>> } = {}
    const bench = await openBench('demo', async (url) => {
      held.cable = await cable(url)
      return held.cable.url
    })
    const tavi = await bench.at('Tavi')
    held.cable?.pull()
    const away = await tavi.get('/api/slips')
    expect([away.status, away.body.code]).toEqual([503, 'database.away'])
    expect((await tavi.get('/api/ready')).status).toBe(503)
    expect((await tavi.get('/api/health')).status).toBe(200)
    held.cable?.plug()
    expect((await tavi.get('/api/slips')).status).toBe(200)
    await bench.close()
    held.cable?.close()
  })
})

describe('a database that takes no new connections', () => {
  it('is not ready, although the ones it has still answer', async () => {
    const { databaseUrl } = await cloneTemplate('empty')
    const held = await cable(databaseUrl)
    const db = openDatabase(held.url)
    expect(await readiness(db)).toEqual({ database: true, tables: true })
    held.refuse()
    expect((await db.raw('select 1 as n')) as object).toMatchObject({ rows: [{ n: 1 }] })
    expect(await readiness(db)).toEqual({ database: false, tables: false })
    await db.destroy()
    held.close()
  })

  it('is away, whatever the driver calls that', () => {
    const said = 'Client has encountered a connection error and is not queryable'
    expect([isAway(new Error(said)), isAway(new Error('a bug'))]).toEqual([true, false])
  })
})

describe('the tables', () => {
  it('go all the way down and up again', async () => {
    /* The book is not the application's to take down. */
    const superuser = new URL((await cloneTemplate('empty')).superuserUrl)
    superuser.searchParams.set('options', '-c search_path=plain_slate,book')
    const db = openDatabase(superuser.href)
    afterAll(() => db.destroy())
    await db.migrate.rollback(undefined, true)
    const left = await db('pg_tables')
      .where({ schemaname: 'plain_slate' })
      .orderBy('tablename')
      .pluck<string[]>('tablename')
    expect(left).toEqual(['migrations', 'migrations_lock'])
    expect(await readiness(db)).toEqual({ database: true, tables: false })
    await migrate(db)
    expect(await readiness(db)).toEqual({ database: true, tables: true })
  })

  it('belong to a role that may make no database, no role, and no schema', async () => {
    const { databaseUrl } = await cloneTemplate('empty')
    const db = openDatabase(databaseUrl)
    for (const sql of [
      'create database x',
      'create role x',
      'create schema x',
      'create table public.x ()',
    ])
      await expect(db.raw(sql)).rejects.toThrow(/permission denied/)
    await db.destroy()
  })

  it('of the book are read and appended to by that role, and nothing else', async () => {
    const { databaseUrl } = await cloneTemplate('demo')
    const db = openDatabase(databaseUrl)
    for (const sql of [
      'alter table book_entries disable trigger all',
      'drop trigger book_only_grows on book_entries',
      "update book_entries set act = 'x'",
      'delete from book_entries',
      'truncate book_entries cascade',
      'drop table book_entries cascade',
      'drop schema book cascade',
      'alter table book_entries owner to plain_slate',
      `create or replace function book.book_only_grows() returns trigger language plpgsql
        as $$ begin return new; end $$`,
    ])
      await expect(db.raw(sql), sql).rejects.toThrow(/permission denied|must be owner/)
    expect(Number((await db('book_entries').count('* as n'))[0]?.['n'])).toBeGreaterThan(50)
    await db.destroy()
  })
})
