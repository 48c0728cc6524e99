/**
 * A shop in the world as it is: its disk runs full under it and has room again, its machine's clock is set on an hour and
 * back. The start runs in a mount namespace of its own, with a disk of its own in memory; what it takes for the time of day
 * is told by Debian's libfaketime from a file. Elapsed time is left as it is, as a machine's own is.
 */
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ApiError, RunShown, Slip } from '@plain-slate/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { isAlive, pause, waitUntil } from '../../scripts/process/alive.ts'
import { INTAKE, SIGNED, linesOf } from '../bench/lines.ts'
import { StartRoom } from './start-room.ts'

const shop = await StartRoom.open()
const clock = join(shop.room, 'clock')
/** Files of the namespace as they are seen from outside of it. */
let inside = ''
const DISK_MIB = 3000
const PARTS = ['server/dist', 'standins/dist', 'agent/dist', 'bin/postgres'] as const

const UNSHARE =
  process.getuid?.() === 0
    ? ['unshare', '--mount']
    : ['unshare', '--map-current-user', '--keep-caps', '--mount']
/** Whether this machine lets its users mount a disk of their own: some containers do not. */
const mounts =
  spawnSync(UNSHARE[0] ?? '', [...UNSHARE.slice(1), 'mount', '-t', 'tmpfs', 'disk', shop.folder])
    .status === 0

/** The disk is mounted where nobody else sees it, and goes with the last process that does. */
const apart = (): readonly string[] => [
  ...UNSHARE,
  ...['sh', '-c'],
  `mount -t tmpfs -o size=${DISK_MIB}m,mode=755 disk ${shop.folder} && exec "$@"`,
  'sh',
]
const LIBRARY = ['x86_64-linux-gnu', 'aarch64-linux-gnu']
  .map((machine) => `/usr/lib/${machine}/faketime/libfaketime.so.1`)
  .find((path) => existsSync(path))

const setClock = (hours: number) =>
  writeFileSync(clock, `${hours < 0 ? '-' : '+'}${Math.abs(hours)}h\n`)
const opened = (device: string) =>
  shop.asked<Slip & ApiError>('POST', '/api/slips', { device, intent: 'update' })

beforeAll(async () => {
  setClock(0)
  const { output } = await shop.started(shop.folder, ['--pace', '20'], {
    before: mounts ? apart() : [],
    env: {
      LD_PRELOAD: LIBRARY,
      FAKETIME_TIMESTAMP_FILE: clock,
      FAKETIME_CACHE_DURATION: '1',
      FAKETIME_DONT_FAKE_MONOTONIC: '1',
    },
  })
  expect(output()).toContain('runs at')
  const { pid } = shop.processOf('scripts/start.mjs')
  inside = mounts ? `/proc/${pid}/root${shop.folder}` : shop.folder
  shop.secretIn(inside)
}, 400_000)
afterAll(() => shop.close())

describe('a disk that runs full', () => {
  it.runIf(mounts)(
    'is named at once, costs nothing that was acknowledged, and all goes on by itself when there is room',
    async () => {
      const filler = join(inside, 'other-things')
      const { body: before } = await opened('before the disk was full')
      expect(before.number).toMatch(/^\d{4}$/)
      try {
        execFileSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=1M'], { stdio: 'ignore' })
      } catch {
        /* It ends because nothing more fits: that is what it is for. */
      }
      /* The database has some room laid by; then it is said what is wrong, and not that something of ours is. */
      let refused: ApiError | undefined
      await waitUntil(async () => {
        /* A connection that was kept may be closed as it is used again. */
        const told = await opened(`on a full disk ${'x'.repeat(60)}`).catch(() => undefined)
        if (told?.status === 507) refused = told.body
        return refused !== undefined
      }, 60_000)
      expect(refused?.code).toBe('disk.full')
      expect(JSON.stringify(refused)).toContain(shop.folder)
      await pause(25_000)
      expect(shop.starting?.child.exitCode).toBeNull()
      rmSync(filler)
      let after = ''
      await until('there is room, and a slip is opened', async () => {
        const answer = await opened('after there was room').catch(() => undefined)
        if (answer?.status === 200) after = answer.body.number
        return after !== ''
      })
      for (const number of [before.number, after])
        expect([number, (await shop.asked('GET', `/api/slips/${number}/job`)).status]).toEqual([
          number,
          200,
        ])
      await until('everything stands again', () => Promise.resolve(PARTS.every(stands)))
      await until('its devices are seen again', async () => {
        const { body } = await shop.asked<BenchShown>('GET', '/api/bench')
        return body.ports.some(({ name, seen }) => name === 'P2' && seen !== null)
      })
    },
    240_000,
  )
})

describe('a clock that is set on an hour, and back', () => {
  it('stops no run, makes nobody quiet, and keeps no run from being taken up', async () => {
    const run = async (id: string) => (await shop.asked<RunShown>('GET', `/api/runs/${id}`)).body
    const id = await startedRun()
    const services = ['server/dist', 'standins/dist', 'agent/dist'].map((one) =>
      shop.processOf(one),
    )
    await until('it writes', async () => (await run(id)).step >= 24)
    setClock(1)
    await pause(3000)
    expect((await run(id)).state).toBe('running')
    expect((await run(id)).quiet).toBeLessThan(60)
    setClock(-1)
    await pause(2000)
    expect((await run(id)).quiet).toBeGreaterThanOrEqual(0)
    expect((await run(id)).quiet).toBeLessThan(60)
    for (const service of services)
      expect([service.pid, isAlive(service)]).toEqual([service.pid, true])
    /* Its agent dies with the clock an hour back: its lease lapses all the same. */
    process.kill(shop.processOf('agent/dist').pid, 'SIGKILL')
    await until('nobody drives it', async () => (await run(id)).ownerless)
    await until('it is taken up', async () => {
      const { body } = await shop.asked<RunShown>('POST', `/api/runs/${id}/take-up`, {})
      return body.state === 'running'
    })
    await until('it ends', async () => {
      const now = await run(id)
      if (now.asked?.ask === 'go-on')
        await shop.asked('POST', '/api/bench/hands', { kind: 'confirm', serial: now.serial })
      if (now.asked !== null)
        await shop.asked('POST', `/api/runs/${id}/done`, { command: now.asked.command })
      return now.state === 'ended'
    })
    expect((await run(id)).word).toBe('done')
  }, 240_000)
})

function stands(part: string): boolean {
  try {
    return isAlive(shop.processOf(part))
  } catch {
    return false
  }
}
type BenchShown = {
  readonly ports: readonly { readonly name: string; readonly seen: object | null }[]
}

/** Slip 0417 taken in, read, planned and begun, as its page would. */
async function startedRun(): Promise<string> {
  const at = '/api/slips/0417'
  await shop.asked('POST', `${at}/read`, { port: 'P2' })
  await until('it is read', async () => {
    const { body } = await shop.asked<{ look: { state: string } | null }>('GET', `${at}/job`)
    return body.look?.state !== 'looking'
  })
  const route = { 'route.package': 'tarn-H2.104.r4', 'compare.unread': 'write-all' }
  await shop.asked('POST', `${at}/lines`, linesOf({ ...INTAKE, ...route }))
  const { body: page } = await shop.asked<{ now: { digest: string } | null; why?: string }>(
    'GET',
    `${at}/plan`,
  )
  const digest = page.now?.digest ?? ''
  await shop.asked('POST', `${at}/plan`, { digest })
  await shop.asked('POST', `${at}/lines`, linesOf(SIGNED))
  const begun = await shop.asked<RunShown | ApiError>('POST', `${at}/start`, { digest })
  if (!('id' in begun.body)) throw new Error(JSON.stringify(begun.body))
  return begun.body.id
}

async function until(what: string, is: () => Promise<boolean>): Promise<void> {
  if (!(await waitUntil(is, 90_000))) throw new Error(`never: ${what}`)
}
