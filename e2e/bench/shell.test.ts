/** The shell tool as it is run: proving here, and the whole job against a running shop. */
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { FACTS, idOfKey } from '@plain-slate/core'
import { cloneTemplate } from '@plain-slate/server/testing'
import { LEAD_FACTS } from '@plain-slate/server/testing/agent'
import { afterAll, describe, expect, it } from 'vitest'
import { INTAKE, SIGNED } from './lines.ts'
import type { Said } from './tool.ts'
import { tool as toolAlone, toolHere } from './tool.ts'
import { LEAD, WholeShop, built, newestPackage } from './whole-shop.ts'

const folder = mkdtempSync(join(tmpdir(), 'shell-'))

/** What the environment says of whoever sits at the shell. */
let whose: Readonly<Record<string, string | undefined>> = {}
/* A run is followed at its own terminal; all else needs no process of its own. */
const tool = (...args: readonly string[]) =>
  args[0] === 'run' || args[0] === 'fly' ? toolAlone(args, whose) : toolHere(args, whose)
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
const wrong = ({ claims }: Proof) => claims.filter(({ held }) => held === 'contradicted')

describe('prove', () => {
  it('proves a whole package, under whatever name its file has', async () => {
    const said = await tool('prove', ...written('tarn-H2.104.r4', undefined, 'renamed-'), '--json')
    expect([said.code, json<Proof>(said).state]).toEqual([0, 'whole'])
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

  it('reads a folder packed as it stands, and names what it refuses without forging a line', async () => {
    const dir = mkdtempSync(join(folder, 'packed-'))
    execFileSync('tar', ['-xf', written('tarn-loader-7-r4')[0] ?? '', '-C', dir])
    const pack = () => {
      const file = join(folder, 'packed.tar')
      execFileSync('tar', ['-cf', file, '-C', dir, '.'])
      return tool('prove', file)
    }
    expect((await pack()).code).toBe(0)
    symlinkSync('/etc', join(dir, 'l\u001b[2J\nloader 7: whole'))
    const odd = await pack()
    expect([odd.code, odd.err]).toEqual([1, expect.stringMatching(/l\\u001b\[2J\\u000aloader 7/)])
    writeFileSync(join(dir, 'manifest.json'), '')
    const empty = await pack()
    expect([empty.code, empty.err.split('\n')[0]]).toEqual([
      2,
      'Its manifest cannot be read: it is empty',
    ])
    expect(empty.err).toContain('it is a link')
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
    whose = { PLAIN_SLATE_TOKEN: shop.by['authorization']?.slice('Bearer '.length) }
    const at = (...args: string[]) => tool(...args, '--data', shop?.folder ?? '', '--json')
    const files = [...written('tarn-loader-7-r4'), ...written('tarn-H2.104.r4')]
    expect((await at('shelve', ...files)).code).toBe(0)
    expect((await at('shelve', ...written('tarn-H2.0ZX.r4'))).code).toBe(1)
    const customer = shop.flash(LEAD).marks

    const shelf = await shop.shelf()
    expect(shelf.packages.map(({ state }) => state)).toEqual(['whole', 'whole'])
    const job = ['--port', 'P2', '--package', 'tarn-H2.104.r4']
    const fits = await at('fit', '--port', 'P2')
    const planned = await at('plan', ...job)
    const rehearsal = await at('rehearse', ...job, '--cuts')
    const fit = json<{ candidates: { package: string; verdict: string }[] }>(fits)
    expect(fit.candidates.map((one) => [idOfKey(one.package), one.verdict])).toEqual([
      ['tarn-H2.104.r4', 'fits-if'],
    ])
    const plan = json<{ digest: string; steps: unknown[] }>(planned)
    const rehearsed = json<{ digest: string; cuts: { worst: string }[] }>(rehearsal)
    expect(rehearsed.digest).toBe(plan.digest)
    expect(rehearsed.cuts.filter(({ worst }) => worst === 'dead')).toHaveLength(1)

    /* A device that is not here, by what was read of it. */
    const file = join(shop.folder, 'readings.json')
    const facts = Object.entries(LEAD_FACTS).filter(([fact]) => FACTS.some((one) => one === fact))
    const readings = facts.map(([fact, value]) => ({ fact, value, source: 'link' }))
    writeFileSync(file, JSON.stringify({ format: 'plain-slate/readings@1', readings }))
    type Roads = { routes: { title: string; first: { title: string }[] }[] }
    const away = json<Roads>(await at('routes', '--readings', file))
    expect(away.routes.map(({ title, first }) => [title, first.map((one) => one.title)])).toEqual([
      ['H2.104.r4', ['loader 7']],
    ])
    /* What was read long ago and changes by itself is not what it is now; what is fixed stays. */
    const verdictAt = async (when: string) => {
      const dated = readings.map((one) => ({ ...one, at: when }))
      writeFileSync(file, JSON.stringify({ format: 'plain-slate/readings@1', readings: dated }))
      const { candidates } = json<typeof fit>(await at('fit', '--readings', file))
      return candidates.map(({ verdict }) => verdict)
    }
    expect(await verdictAt('2026-01-05T09:00:00Z')).toEqual(['cannot-tell'])
    expect(await verdictAt('2099-01-05T09:00:00Z')).toEqual(['fits-if'])
    writeFileSync(file, JSON.stringify({ format: 'plain-slate/readings@1', readings }))
    const cuts = await tool(
      'rehearse',
      '--readings',
      file,
      '--package',
      'tarn-H2.104.r4',
      '--cuts',
      '--data',
      shop.folder,
    )
    expect([cuts.code, cuts.out]).toEqual([0, expect.stringContaining('as promised')])
    writeFileSync(file, JSON.stringify({ format: 'plain-slate/readings@1', readings: [] }))
    const none = await tool('fit', '--readings', file, '--data', shop.folder)
    expect([none.code, none.err]).toEqual([2, expect.stringContaining('holds no readings')])

    const aimless = await tool('run', ...job, '--data', shop.folder)
    expect([aimless.code, aimless.err]).toEqual([2, expect.stringContaining('--slip NUMBER')])
    const unready = await tool('run', '--open', ...job, '--serial', '7F31', '--data', shop.folder)
    const number = /Slip (\d+) was opened/.exec(unready.err)?.[1] ?? ''
    expect([unready.code, unready.err]).toEqual([2, expect.stringContaining('asked at intake')])
    const slip = ['--slip', number]
    const said = (answers: Readonly<Record<string, string>>) =>
      at('say', ...slip, ...Object.entries(answers).map(([topic, answer]) => `${topic}=${answer}`))
    expect((await said({ 'owner.proof': 'perhaps' })).code).toBe(2)
    expect((await said(INTAKE)).code).toBe(0)
    const road = json<{ routes: { package: string; first: { title: string }[] }[] }>(
      await at('routes', ...slip),
    )
    expect(
      road.routes.map((one) => [idOfKey(one.package), one.first.map(({ title }) => title)]),
    ).toEqual([['tarn-H2.104.r4', ['loader 7']]])
    type Why = { verdict: string; findings: { rule: string; verdict: string }[] }
    const of = json<Why>(await at('why', ...slip, '--package', 'tarn-H2.104.r4'))
    expect([of.verdict, of.findings[0]?.rule]).toEqual(['fits-if', 'state.loader.least'])
    const spoken = await tool('why', ...slip, '--package', 'tarn-H2.104.r4', '--data', shop.folder)
    expect(spoken.out).toContain('is raised to 7 on the way, by loader 7 (state.loader.least)')
    const nobody = await tool('why', ...slip, '--package', 'no-such', '--data', shop.folder)
    expect([nobody.code, nobody.err]).toEqual([2, expect.stringContaining('no-such')])
    const unvouched = await tool('run', ...slip, ...job, '--serial', '7F31', '--data', shop.folder)
    expect(unvouched.err).toContain('Somebody outside vouches for every package')
    /* The digests that the maker publishes come from outside: sent with the archives again. */
    for (const file of files) {
      const sha256 = createHash('sha256').update(readFileSync(file)).digest('hex')
      const from = ['--from', 'maker', '--where', 'page of releases']
      expect((await at('shelve', file, '--sha256', sha256, ...from)).code).toBe(0)
    }
    /* What is on the shelf changed: the plan is taken anew, and signed for. */
    const retaken = await at('run', ...slip, '--package', 'tarn-H2.104.r4', '--serial', '7F31')
    expect(retaken.code).toBe(2)
    expect((await said(SIGNED)).code).toBe(0)
    const unnamed = await tool('run', ...slip, '--data', shop.folder)
    expect([unnamed.code, unnamed.err]).toEqual([2, expect.stringContaining('--serial 7F31')])
    const other = await at('run', ...slip, '--serial', '1C04')
    expect(other.code).toBe(2)
    /* Somebody beside it presses the key that its first start waits for. */
    const bench = shop
    const press = setInterval(() => void bench.hands({ kind: 'confirm', serial: LEAD }), 50)
    const run = await at('run', ...slip, '--serial', '7F31')
    clearInterval(press)
    expect(json<{ word: string }>(run).word).toBe('done')
    const flash = shop.flash(LEAD)
    expect([flash.wrong(newestPackage()), flash.marks]).toEqual([[], customer])
    expect(json<{ holds: boolean }>(await at('book', 'verify')).holds).toBe(true)
  }, 240_000)
})
