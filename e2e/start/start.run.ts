/**
 * The start command as a whole, on a data folder of its own and a free port: it starts, survives the
 * death of each process, dies without orphans, and starts again. Slow, so it has a room of its own.
 */
import { cpSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { chances } from '@plain-slate/core'
import { afterAll, describe, expect, it } from 'vitest'
import { shopIdOf } from '../../scripts/database/place.ts'
import { commandOf, isAlive, parentOf, pause, waitUntil } from '../../scripts/process/alive.ts'
import { busyMachine } from './load.ts'
import type { Started } from './start-room.ts'
import { StartRoom, said } from './start-room.ts'

const shop = await StartRoom.open()
const { room, folder, address, ready } = shop
const start = (data: string, ...more: readonly string[]) => shop.start(data, more)
const started = (...more: readonly string[]): Promise<Started> => startedIn(folder, ...more)
async function startedIn(data: string, ...more: readonly string[]): Promise<Started> {
  const one = await shop.started(data, more)
  expect(one.output()).toContain(`Plain Slate runs at ${address}/`)
  return one
}
const processOf = (part: string) => shop.processOf(part)
const ctrlC = () => shop.ctrlC()
const noneLeft = () => shop.noneLeft()

const PORTS = {
  front: ['P1', 'P2', 'P3', 'P4', 'P5', 'P6'].map((port) => `${port} of the front bench`),
  back: ['back-P1', 'back-P2', 'back-P3'].map((port) => `${port} of the back room`),
}
/** The ports with their benches, once every agent has told of its own. */
async function benches(): Promise<readonly string[]> {
  type Told = { ports: { name: string; bench: string | null }[] }
  let told: string[] = []
  await waitUntil(async () => {
    const { ports } = (await shop.asked<Told>('GET', '/api/bench')).body
    told = ports.map(({ name, bench }) => `${name} of ${bench ?? ''}`)
    return ports.length > 6 && ports.every(({ bench }) => bench !== null)
  }, 60_000)
  return told.sort((a, b) => Number(a.startsWith('back')) - Number(b.startsWith('back')))
}

afterAll(() => shop.close())

const twin = join(room, 'twin')
/** The newest entry of the book of a shop that runs; of the first one, once it is copied. */
const head = async (data: string) =>
  /head ([0-9a-f]{64})/.exec(await said('book', 'verify', '--data', data))?.[1] ?? 'none'
let was = ''
/** Where its database lies. */
const placeOf = (data: string) =>
  (JSON.parse(readFileSync(join(data, 'cluster.json'), 'utf8')) as { folder: string }).folder

/** Beside the start: processes that only count, and a writer. Ten starts beside eight and a writer that never rests are measured: `npm run measure -- starts`. */
const BUSY = 2
const WRITER = { mib: 16, rest: 1 }
/** Moments at which a start is killed, in seconds, of the seed's choosing. */
const moments = (): readonly number[] => {
  const random = chances(Number(process.env['SEED'] ?? 20261015))
  return [1 + random() * 6, 6 + random() * 14]
}

describe('the start command', () => {
  it('killed at any moment of its first start, beside a busy machine, is up by the next: whole, and without a stack', async () => {
    const load = busyMachine(BUSY, WRITER)
    try {
      for (const seconds of moments()) {
        shop.start(folder)
        await pause(seconds * 1000)
        process.kill(-(shop.starting?.child.pid ?? 0), 'SIGKILL')
        expect([seconds, await noneLeft()]).toEqual([seconds, true])
      }
      const { output } = await started()
      expect(output()).not.toContain('Not every package')
      expect(output()).not.toMatch(/^ +at /m)
    } finally {
      load.end()
    }
  }, 1_200_000)

  it('prints its address last, with the PINs of the demo under it, and serves', async () => {
    const output = shop.starting?.output ?? (() => '')
    expect(output().trimEnd().split('\n').slice(-5)).toEqual([
      `Plain Slate runs at ${address}/`,
      '  Ilse Maro, lead: PIN 2204',
      '  Tavi Renn, technician: PIN 3815',
      '  Pell Ondry, technician: PIN 6092',
      '  Juno Aske, trainee: PIN 7450',
    ])
    expect(await ready()).toBe(true)
    const page = await fetch(address).then((answer) => answer.text())
    expect(page).toContain('id="app"')
    expect(page).not.toContain('%NONCE%')
  })

  it('starts a second time on the same folder only to say that the first runs', async () => {
    const first = shop.starting
    const { child, output } = start(folder)
    await waitUntil(() => child.exitCode !== null, 60_000)
    expect(child.exitCode).toBe(1)
    expect(output()).toContain(`already runs from ${folder}: ${address}/`)
    shop.starting = first
  })

  it.each([
    ['server/dist/main.mjs', 'SIGKILL'],
    ['bin/postgres', 'SIGKILL'],
    /* Its users would keep it for as long as they live: nobody is left in that limbo. */
    ['bin/postgres', 'SIGTERM'],
  ] as const)('starts %s again when it gets %s', async (part, signal) => {
    expect(await waitUntil(ready, 90_000)).toBe(true)
    const victim = processOf(part)
    process.kill(victim.pid, signal)
    /* Its own last checkpoint takes what a busy disk takes; after 40 s it is ended the hard way. */
    expect(await waitUntil(() => !isAlive(victim), 60_000)).toBe(true)
    expect(await waitUntil(ready, 90_000)).toBe(true)
  })

  it('loses a session of its database to a kill, and is there again in seconds, fifty times over', async () => {
    expect(await waitUntil(ready, 90_000)).toBe(true)
    const postmaster = processOf('bin/postgres')
    for (let time = 0; time < 50; time += 1) {
      const session = readdirSync('/proc')
        .filter((name) => /^\d+$/.test(name) && parentOf(Number(name)) === postmaster.pid)
        .find((pid) => commandOf(Number(pid)).startsWith('postgres: plain_slate'))
      process.kill(Number(session), 'SIGKILL')
      await pause(200)
      expect(await waitUntil(ready, 10_000)).toBe(true)
    }
    /* Left to recover by itself: it is the same server still. */
    expect(isAlive(postmaster)).toBe(true)
  })

  it('ends in order on Ctrl-C, and leaves nothing running', async () => {
    expect(await ctrlC()).toBe(true)
    const log = readFileSync(join(folder, 'logs', 'database.log'), 'utf8')
    expect(log.trimEnd().split('\n').at(-1)).toContain('database system is shut down')
  })

  it('killed hard, leaves no orphan, and the next start has every slip and a whole book', async () => {
    await started()
    const npm = shop.starting?.child.pid ?? 0
    process.kill(npm, 'SIGKILL')
    expect(await noneLeft()).toBe(true)

    await started()
    const supervisor = processOf('scripts/start.mjs')
    process.kill(supervisor.pid, 'SIGKILL')
    await pause(100)
    await started('--benches', '2')
    expect(await benches()).toEqual([...PORTS.front, ...PORTS.back])
    expect(await said('book', 'verify', '--data', folder)).toMatch(/\d+ entries: the chain holds/)
  })

  it('is copied while it runs, and again for what is new alone; the copy opens elsewhere with the same book', async () => {
    const copy = join(room, 'copy')
    expect(await said('backup', copy, '--data', folder)).toMatch(
      /chain holds.*, [1-9]\d* of them new/s,
    )
    expect(await said('backup', copy, '--data', folder)).toMatch(/chain holds.*, 0 of them new/s)
    expect(statSync(join(copy, 'secrets')).mode & 0o777).toBe(0o700)
    was = await head(folder)
    expect(was).not.toBe('none')
    expect(await ctrlC()).toBe(true)
    const restored = join(room, 'restored')
    expect(await said('restore', copy, '--data', restored)).toContain('is restored in')
    expect(await said('restore', copy, '--data', restored)).toContain('is not empty')
    await startedIn(restored)
    expect(await head(restored)).toBe(was)
    expect(await ctrlC()).toBe(true)
  })

  it('started from a copied folder says so, and does nothing; with --as-copy makes that a shop of its own with the same book', async () => {
    cpSync(folder, twin, { recursive: true })
    const { child, output } = start(twin)
    await waitUntil(() => child.exitCode !== null, 60_000)
    expect(output()).toContain(`is a copy of ${folder}, which is still there`)
    expect(shopIdOf(twin)).toBe(shopIdOf(folder))
    await startedIn(twin, '--as-copy')
    expect(shopIdOf(twin)).not.toBe(shopIdOf(folder))
    expect(await head(twin)).toBe(was)
    expect(await ctrlC()).toBe(true)
  })

  it('moved as a whole it is the same shop; where the database’s own user cannot go, that lies away and is found again', async () => {
    const id = shopIdOf(twin)
    const isRoot = process.getuid?.() === 0
    const closed = join(room, 'closed')
    mkdirSync(closed, { mode: isRoot ? 0o700 : 0o755 })
    const places = [twin, join(closed, 'shop'), join(closed, 'moved')]
    const lay: string[] = []
    for (const [index, place] of places.entries()) {
      const before = places[index - 1]
      if (before === undefined) continue
      renameSync(before, place)
      await startedIn(place)
      expect([shopIdOf(place), await head(place)]).toEqual([id, was])
      lay.push(placeOf(place))
      expect(await ctrlC()).toBe(true)
    }
    expect(lay.map((one) => one.startsWith(closed))).toEqual([!isRoot, !isRoot])
    if (!isRoot) return
    expect(lay[0]).toBe(lay[1])
    rmSync(dirname(dirname(lay[0] ?? '')), { recursive: true })
  })

  it('whose database is gone makes no empty one in its place', async () => {
    const lost = join(room, 'restored')
    rmSync(placeOf(lost), { recursive: true })
    const { child, output } = start(lost)
    await waitUntil(() => child.exitCode !== null, 60_000)
    expect(output()).toContain('Nothing was made in its place')
    expect(output()).not.toContain('    at ')
  })

  it('will not make an empty shop of a folder that holds the demo', async () => {
    const { child, output } = start(folder, '--empty')
    await waitUntil(() => child.exitCode !== null, 60_000)
    expect(output()).toContain('holds the demo shop')
  })
})
