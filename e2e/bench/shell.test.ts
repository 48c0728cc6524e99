/** The shell tool as it is run: proving here, and the whole job against a running shop. */
import { spawn } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, describe, expect, it } from 'vitest'
import { LEAD, WholeShop, built, newestPackage } from './whole-shop.ts'

const TOOL = fileURLToPath(new URL('../../packages/cli/bin/plain-slate.mjs', import.meta.url))
const folder = mkdtempSync(join(tmpdir(), 'shell-'))

type Said = { readonly code: number | null; readonly out: string; readonly err: string }

/** Runs the tool; Enter is pressed every so often, as a person would who does what is asked. */
function tool(...args: readonly string[]): Promise<Said> {
  const child = spawn(process.execPath, [TOOL, ...args])
  const said = { out: '', err: '' }
  child.stdout.on('data', (text) => (said.out += String(text)))
  child.stderr.on('data', (text) => (said.err += String(text)))
  child.stdin.on('error', () => undefined)
  const enter = setInterval(() => child.stdin.write('\n'), 200)
  return new Promise((resolve) =>
    child.once('close', (code) => {
      clearInterval(enter)
      resolve({ code, ...said })
    }),
  )
}
const json = <Shape>({ out }: Said) => JSON.parse(out) as Shape

/** Writes the volumes of a package of the demo; `change` may spoil their bytes. */
function written(
  name: string,
  change: (bytes: Buffer) => void = () => undefined,
  label = '',
): string[] {
  return built(name).volumes.map(({ file, chunks }) => {
    const bytes = Buffer.concat([...chunks()])
    change(bytes)
    const path = join(folder, label + file)
    writeFileSync(path, bytes)
    return path
  })
}

type Proof = { state: string; claims: { claim: string; held: string; partition?: string }[] }
const wrong = ({ claims }: Proof) => claims.filter(({ held }) => held !== 'holds')

describe('prove', () => {
  it('proves a whole package, under whatever name its file has', async () => {
    const said = await tool('prove', ...written('tarn-H2.104.r4', undefined, 'renamed-'), '--json')
    expect([said.code, json<Proof>(said).state]).toEqual([0, 'proven'])
  })

  it('finds one byte of an image changed, and says which', async () => {
    const spoil = (bytes: Buffer) => bytes.writeUInt8(bytes.readUInt8(9_000_000) ^ 1, 9_000_000)
    const said = await tool('prove', ...written('tarn-H2.104.r4', spoil, 'spoilt-'), '--json')
    expect(said.code).toBe(1)
    expect(wrong(json<Proof>(said))).toMatchObject([
      { claim: 'image', held: 'contradicted', partition: 'main' },
    ])
  })

  it('wants every volume, and says which is missing', async () => {
    const [first = '', second = ''] = written('tarn-H2.102.r4')
    const half = await tool('prove', first)
    expect([half.code, half.err]).toEqual([1, expect.stringContaining('2of2.tar is here: missing')])
    expect((await tool('prove', second, first)).code).toBe(0)
  })

  it('names entry, offset and rule of a damaged archive', async () => {
    const said = await tool('prove', ...written('tarn-H2.0ZX.r4'))
    expect([said.code, said.err]).toEqual([1, expect.stringContaining('in main.img at byte')])
  })

  it('says what it cannot do in a sentence', async () => {
    expect((await tool('prove', '/nowhere.tar')).err).toContain('/nowhere.tar cannot be read')
    expect((await tool('fit')).err).toContain('needs --port')
    expect((await tool('fit', '--port', 'P2', '--data', folder)).err).toContain('npm start')
    expect((await tool('fly')).code).toBe(2)
  })
})

describe('the job from a shell', () => {
  let shop: WholeShop | undefined
  afterAll(() => shop?.close())

  it('is shelved, fitted, planned, rehearsed, written and booked', async () => {
    const { databaseUrl } = await cloneTemplate('demo')
    shop = new WholeShop(databaseUrl, 100)
    await shop.open([])
    const at = (...args: string[]) => tool(...args, '--data', shop?.folder ?? '', '--json')
    const files = [...written('tarn-loader-7-r4'), ...written('tarn-H2.104.r4')]
    expect((await at('shelve', ...files)).code).toBe(0)
    expect((await at('shelve', ...written('tarn-H2.0ZX.r4'))).code).toBe(1)
    const customer = shop.flash(LEAD).marks

    const fit = json<{ candidates: { package: string; verdict: string }[] }>(
      await at('fit', '--port', 'P2'),
    )
    expect(fit.candidates.map((one) => [one.package, one.verdict])).toEqual([
      ['tarn-H2.104.r4', 'fits-if'],
    ])
    const job = ['--port', 'P2', '--package', 'tarn-H2.104.r4']
    const plan = json<{ digest: string; steps: unknown[] }>(await at('plan', ...job))
    const rehearsed = json<{ digest: string; cuts: { worst: string }[] }>(
      await at('rehearse', ...job),
    )
    expect(rehearsed.digest).toBe(plan.digest)
    expect(rehearsed.cuts.filter(({ worst }) => worst === 'dead')).toHaveLength(1)

    const unnamed = await tool('run', ...job, '--data', shop.folder)
    expect([unnamed.code, unnamed.err]).toEqual([2, expect.stringContaining('--serial 7F31')])
    const other = await at('run', ...job, '--serial', '1C04')
    expect(other.code).toBe(2)
    const run = await at('run', ...job, '--serial', '7F31')
    expect(json<{ word: string }>(run).word).toBe('done')
    expect(run.err).toContain('Hands now')
    const flash = shop.flash(LEAD)
    expect([flash.wrong(newestPackage()), flash.marks]).toEqual([[], customer])
    expect(json<{ holds: boolean }>(await at('book', 'verify')).holds).toBe(true)
  }, 120_000)
})
