import { readFileSync, readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from '../testing/bench.ts'
import type { Bench } from '../testing/bench.ts'
import { anyAgent, heartOf } from './devices.ts'

let bench: Bench
beforeAll(async () => (bench = await openBench()))
afterAll(() => bench.close())
const db = () => bench.server.workshop.db
const steady = async (): Promise<number> => {
  const { rows } = (await db().raw('select extract(epoch from steady_now())::float as at')) as {
    rows: { at: number }[]
  }
  return rows[0]?.at ?? 0
}
const uptime = () => Number(readFileSync('/proc/uptime', 'utf8').split(' ')[0])

describe('the clock of what is elapsed', () => {
  it('goes on as the machine does since its boot, within a transaction too', async () => {
    const [from, began] = [await steady(), uptime()]
    await db().raw('select pg_sleep(0.4)')
    expect(Math.abs((await steady()) - from - (uptime() - began))).toBeLessThan(0.2)
  })

  it('hangs on what was put down at the boot, not on the machine’s own clock', async () => {
    await heartOf(db(), 'agent x', 10_000)
    expect(await anyAgent(db())).toBe(true)
    /* As though the machine's clock had been another hour when this boot was put down: what is elapsed stays. */
    const before = await steady()
    await db().raw(`update steady_boots set origin = origin + interval '1 hour'`)
    expect(Math.round((await steady()) - before)).toBe(3600)
    expect(await anyAgent(db())).toBe(false)
    await heartOf(db(), 'agent x', 10_000)
    expect(await anyAgent(db())).toBe(true)
    await db().raw(`update steady_boots set origin = origin - interval '1 hour'`)
  })

  it('is what every lease and every silence is told by: no table asks the other', () => {
    const folder = fileURLToPath(new URL('.', import.meta.url))
    const asked = readdirSync(folder)
      .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
      .flatMap((name) =>
        readFileSync(`${folder}${name}`, 'utf8')
          .split('\n')
          .filter((line) =>
            /(until|moved_at|seen_at|quiet|age)\b.*(\bnow\(\)|fn\.now\(\))/.test(line),
          )
          .filter((line) => !line.includes('steady_now'))
          .map((line) => `${name}: ${line.trim()}`),
      )
    expect(asked).toEqual([])
  })
})
