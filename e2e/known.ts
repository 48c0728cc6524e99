/**
 * A server that knows of packages by a depot's catalogue, and devices that somebody plays: what is judged of them, on
 * the page. Nothing is written here; what a device says and what a depot lists are the test's own.
 */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ApiError } from '@plain-slate/api'
import type { DeviceFacts, Intent, Manifest } from '@plain-slate/core'
import type { PackageDraft } from '@plain-slate/demo'
import {
  DEMO_PACKAGES,
  FEN_11A,
  KNOWN_PACKAGES,
  DEMO_KEYS,
  draftOf,
  listedPackage,
  signedCatalogue,
} from '@plain-slate/demo'
import { agentSees, answerLook, headersTo } from '@plain-slate/server/testing/agent'
import { INTAKE, linesOf } from './bench/lines.ts'
import { openServer, test as base } from './bench.ts'
import type { Running } from '@plain-slate/server'

/** A loader, and two steps that ask for it, for tablets that were left behind. */
const step = (from: string, to: string, patchDate: string): PackageDraft =>
  draftOf(
    FEN_11A,
    `FEN-${to}-S`,
    {
      id: `fen-FEN-${from}-S-to-${to}`,
      title: `FEN-${from}-S to FEN-${to}-S`,
      kind: 'incremental',
      release: 8,
      patchDate,
      track: 'S',
      requires: { exactBuild: `FEN-${from}-S`, minLoader: 12 },
    },
    { roles: ['kernel', 'variant', 'support', 'main'] },
  )
const LEFT_BEHIND: readonly PackageDraft[] = [
  draftOf(
    FEN_11A,
    'FEN-26.23A-S',
    {
      id: 'fen-loader-12',
      title: 'loader 12',
      kind: 'part',
      release: 8,
      patchDate: '2026-10-01',
      track: 'S',
      loaderVersion: 12,
      together: [],
    },
    { roles: ['loader'] },
  ),
  step('26.21B', '26.22A', '2026-10-05'),
  step('26.22A', '26.23A', '2026-10-10'),
]

const listed: readonly Manifest[] = [...DEMO_PACKAGES, ...KNOWN_PACKAGES, ...LEFT_BEHIND].map(
  (one) => listedPackage(one),
)

/** A server that knows these packages by a depot's catalogue. */
export type Knowing = {
  readonly server: Running
  readonly address: string
  /** Has it take in a catalogue. */
  readonly take: (text: string) => Promise<void>
  readonly close: () => Promise<void>
}

export async function knowing(packages: readonly Manifest[]): Promise<Knowing> {
  const trust = mkdtempSync(join(tmpdir(), 'plain-slate-trust-'))
  for (const [name, pem] of DEMO_KEYS) writeFileSync(join(trust, `${name}.pem`), pem())
  const server = await openServer('demo', { PLAIN_SLATE_TRUST: trust })
  const address = `http://127.0.0.1:${server.port}`
  const take = async (text: string) => {
    await send(address, '/api/shelf/catalogues', text)
  }
  if (packages.length > 0) await take(signedCatalogue(packages))
  return { server, address, take, close: () => server.stop() }
}

/** Tests of a server that knows what the depot knows. */
export const knownTest = base.extend<object, { server: Running; known: Knowing }>({
  known: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
    async ({}, use) => {
      const known = await knowing(listed)
      await use(known)
      await known.close()
    },
    { scope: 'worker' },
  ],
  server: [async ({ known }, use) => use(known.server), { scope: 'worker' }],
})

async function send<Body>(address: string, path: string, body: string | object): Promise<Body> {
  const text = typeof body === 'string'
  const type = text ? 'application/octet-stream' : 'application/json'
  const response = await fetch(address + path, {
    method: 'POST',
    headers: { ...(await headersTo(address, path)), 'content-type': type },
    body: text ? body : JSON.stringify(body),
  })
  const answer = (await response.json()) as Body & Partial<ApiError>
  if (answer.sentence !== undefined) throw new Error(`${path}: ${answer.sentence}`)
  return answer
}

export type Played = {
  readonly device: string
  readonly intent: Intent
  /** What it says of itself, apart from the facts that no test rests on. */
  readonly facts: Partial<DeviceFacts> & Pick<DeviceFacts, 'model' | 'serial'>
  readonly answers?: Readonly<Record<string, string>>
}

/** Ports are taken in turn, so that no test meets another's device; at P6 the demo has a run in doubt. */
const PORTS = ['P1', 'P2', 'P3', 'P4', 'P5']
let turn = 0

/** A slip that was taken in, its device read over the link; answers its number. */
export async function playedSlip(
  { address }: Pick<Knowing, 'address'>,
  { device, intent, facts, answers = {} }: Played,
): Promise<string> {
  const port = PORTS[(turn += 1) % PORTS.length] ?? 'P1'
  const told = { ...NOT_TOLD, ...facts }
  const head = { device, model: facts.model, intent }
  const { number } = await send<{ number: string }>(address, '/api/slips', head)
  const lines = linesOf({ ...INTAKE, 'survive.tickets': 'not-there', ...answers })
  await send(address, `/api/slips/${number}/lines`, lines)
  await agentSees(address, port, told)
  await send(address, `/api/slips/${number}/read`, { port })
  await answerLook(address, told)
  return number
}

/** Facts of the lead device that another family’s has not. */
const NOT_TOLD = { floor: undefined, track: undefined } as unknown as Partial<DeviceFacts>
