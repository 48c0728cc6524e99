/** What people say of one port is heard whatever another one does; one fault stays one fault. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Command, JournalEntry } from '@plain-slate/core'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { FarEnd } from './testing/far-end.ts'
import { FACTS, farEnd, saysFacts } from './testing/far-end.ts'
import { PlayedServer, until } from './testing/played-server.ts'

const RUN = '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009'
const LOOK = '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0010'
const meets: Command = { kind: 'meet', mode: 'rescue' }
const hands: Command = { kind: 'person', ask: 'enter', text: 'Hold both triggers.' }

let server: PlayedServer
const ends: FarEnd[] = []
beforeEach(() => (server = new PlayedServer()))
afterEach(async () => {
  await server.close()
  for (const end of ends.splice(0)) end.close()
})
async function device(...told: Parameters<typeof farEnd>): Promise<FarEnd> {
  const end = await farEnd(...told)
  ends.push(end)
  return end
}
const stopped = () => {
  const phase = server.last?.shown.phase
  return phase?.kind === 'stopped' ? phase.why : undefined
}
/** The way to a played device, as the house writes it. */
const wayTo = ({ address }: FarEnd): string =>
  address.kind === 'tcp' ? `tcp:${address.host}:${address.port}` : ''
const seen = (name: string) => server.told.at(-1)?.find((port) => port.name === name)

describe('a stop', () => {
  it('is heard while another port is read deeply', async () => {
    const slow = await device(({ verb }) =>
      verb === 'hello' ? { answer: 'facts', facts: { ...FACTS, serial: 'OTHER-1' } } : undefined,
    )
    const one = await device(saysFacts())
    server.looks = [{ id: LOOK, port: 'P1', digests: [], into: null, epoch: null }]
    await server.open({ P1: slow.address, P2: one.address })
    await until('the look hangs at P1', () => slow.heard.some(({ verb }) => verb === 'tally'))
    server.want(RUN, 'P2', { commands: [meets] })
    await until('the run waits', () => server.last?.shown.waiting?.seen?.mode === 'loader')
    server.stop(1)
    await until('it is met', () => stopped()?.kind === 'asked')
    expect(server.last?.heard).toBe(1)
  })

  it.each([
    ['a device that does not come', meets],
    ['hands that nobody says are done', hands],
  ])('takes effect while the run waits for %s', async (_what, command) => {
    const one = await device(saysFacts())
    await server.open({ P2: one.address })
    server.want(RUN, 'P2', { commands: [command] })
    await until('it is under way', () => server.reports.length > 0)
    server.stop(1)
    await until('it is met', () => stopped()?.kind === 'asked')
  })

  it('that stands when a run is claimed is met before anything is sent, at the new epoch', async () => {
    const one = await device(saysFacts())
    await server.open({ P2: one.address })
    server.want(RUN, 'P2', { commands: [{ kind: 'restart', to: 'normal' }], epoch: 9 }, 3)
    await until('it is met', () => stopped()?.kind === 'asked')
    expect(server.last?.heard).toBe(3)
    expect(one.heard.some(({ verb }) => verb === 'restart')).toBe(false)
    /* Whoever drove it before meets the higher epoch. */
    expect(one.heard.some(({ verb, epoch }) => verb === 'hello' && epoch === 9)).toBe(true)
  })
})

describe('one bad port', () => {
  it('that is silent keeps no other from being watched', async () => {
    const silent = await device(() => undefined)
    const one = await device(saysFacts())
    await server.open({
      P1: silent.address,
      P2: silent.address,
      P3: silent.address,
      P4: one.address,
    })
    await until('P4 is seen', () => seen('P4')?.facts?.serial === FACTS.serial)
    expect(silent.heard.filter(({ verb }) => verb === 'hello')).toHaveLength(3)
  })

  it('whose device says what is no text is told as odd, or the odd fact is', async () => {
    const cut = 'BRAK\u0000H2K'
    const named = await device(saysFacts({ ...FACTS, model: cut, board: '\ud800' }))
    const nameless = await device(saysFacts({ ...FACTS, serial: 'TRN\u0000' }))
    const one = await device(saysFacts({ ...FACTS, serial: 'OTHER-1' }))
    await server.open({ P1: named.address, P2: nameless.address, P3: one.address })
    await until('all are told', () =>
      Boolean(seen('P3')?.facts && seen('P2')?.odd && seen('P1')?.facts),
    )
    expect(seen('P1')?.facts).toMatchObject({ model: 'BRAK\ufffdH2K', board: '\ufffd' })
    expect(seen('P2')).toMatchObject({ facts: null, odd: expect.stringContaining('serial') })
  })
})

describe('a fault of the bench', () => {
  it('before a run can be begun ends it with its reason, and leaves the port free', async () => {
    const one = await device(saysFacts())
    await server.open({ P2: one.address })
    /* Where the journal would be written anew there is a folder. */
    mkdirSync(join(server.folder, 'runs', `${RUN}.jsonl.new`))
    server.want(RUN, 'P2', { commands: [hands] })
    await until('it is told', () => stopped()?.kind === 'fault')
    expect(stopped()).toMatchObject({ what: expect.stringContaining('EISDIR') })
    const told = server.told.length
    const glances = one.heard.length
    await until('the port is watched again', () => one.heard.length > glances)
    expect(told).toBeLessThanOrEqual(server.told.length)
    server.want('0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0011', 'P2', { commands: [hands] })
    await until('it takes another run', () => server.claims.length === 2)
  })

  it('that is bytes gone from the shelf stops a run before its first verb', async () => {
    const one = await device(saysFacts())
    await server.open({ P2: one.address })
    const put = { kind: 'put', mode: 'rescue', partition: 'main', offset: 0, size: 9 } as const
    server.want(RUN, 'P2', { commands: [{ ...put, image: 'f'.repeat(64) }] })
    await until('it is told', () => stopped() !== undefined)
    expect(stopped()).toEqual({ kind: 'bytes', image: 'f'.repeat(64), what: 'missing' })
    expect(one.heard.some(({ verb }) => verb === 'begin')).toBe(false)
  })

  const intend: JournalEntry = { kind: 'intend', command: 0, epoch: 1 }
  const astray: JournalEntry = { kind: 'done', command: 4, evidence: { is: 'kept' } }
  it('in the journal, an entry out of turn, stops the run and says at which', async () => {
    const one = await device(saysFacts())
    await server.open({ P2: one.address })
    const lines = [intend, astray].map((entry) => `${JSON.stringify(entry)}\n`).join('')
    writeFileSync(join(server.folder, 'runs', `${RUN}.jsonl`), lines)
    server.want(RUN, 'P2', { commands: [hands, hands] })
    await until('it is told', () => stopped() !== undefined)
    expect(stopped()).toEqual({ kind: 'journal', entry: 2 })
  })

  it('that the server’s mirror makes good is taken up from there', async () => {
    const one = await device(saysFacts())
    await server.open({ P2: one.address })
    const lines = [intend, astray].map((entry) => `${JSON.stringify(entry)}\n`).join('')
    writeFileSync(join(server.folder, 'runs', `${RUN}.jsonl`), lines)
    const journal: JournalEntry[] = [
      intend,
      { kind: 'done', command: 0, evidence: { is: 'person', by: 'Tavi' } },
    ]
    server.want(RUN, 'P2', { commands: [hands, hands], journal })
    await until('it asks for the second', () => server.last?.shown.next === 1)
  })
})

describe('ports that come and go', () => {
  const ownPorts = (ports: object) =>
    writeFileSync(
      join(server.folder, 'own-ports.json'),
      JSON.stringify({ format: 'plain-slate/own-ports@1', ports }),
    )
  const told = () => (server.told.at(-1) ?? []).map(({ name, filed }) => `${name} ${filed}`)

  it('are held without a restart: named by the house, and in a file on this machine', async () => {
    const one = await device(saysFacts())
    const other = await device(saysFacts({ ...FACTS, serial: 'OTHER-1' }))
    await server.open({})
    await until('none is told', () => server.told.length > 0)
    server.named = [{ name: 'H1', address: wayTo(one) }]
    await until('its device is seen', () => seen('H1')?.facts?.serial === FACTS.serial)
    ownPorts({ M1: { address: wayTo(other) } })
    await until('the other too', () => seen('M1')?.facts?.serial === 'OTHER-1')
    expect(told()).toEqual(['H1 false', 'M1 true'])
    server.named = []
    ownPorts({})
    await until('both are left', () => told().length === 0)
  })

  it('stay while something is under way there, and are left after that', async () => {
    const slow = await device(({ verb }) =>
      verb === 'hello' ? { answer: 'facts', facts: FACTS } : undefined,
    )
    server.named = [{ name: 'H1', address: wayTo(slow) }]
    await server.open({})
    await until('it is held', () => seen('H1') !== undefined)
    server.looks = [{ id: LOOK, port: 'H1', digests: [], into: null, epoch: null }]
    await until('the look hangs', () => slow.heard.some(({ verb }) => verb === 'tally'))
    server.named = []
    const before = server.told.length
    await until('it was told again', () => server.told.length > before + 1)
    expect(seen('H1')).toBeDefined()
  })

  it('in a file that cannot be read stay as they were', async () => {
    const one = await device(saysFacts())
    ownPorts({ M1: { address: wayTo(one) } })
    await server.open({})
    await until('it is held', () => seen('M1')?.facts?.serial === FACTS.serial)
    writeFileSync(join(server.folder, 'own-ports.json'), '{"form')
    const before = server.told.length
    await until('it was told again', () => server.told.length > before + 1)
    expect(told()).toEqual(['M1 true'])
  })
})
