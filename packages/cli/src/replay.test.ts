/** Replaying is a claim of the book: it holds for what is as it was, and names what is not. */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import type { DeviceFacts, Json, Manifest } from '@plain-slate/core'
import {
  NO_HISTORY,
  USUAL_HOUSE,
  canonical,
  familySchema,
  identify,
  makePlan,
  modelled,
  ms,
  runWithFaults,
} from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { endedSchema, replay } from './replay.ts'

const yaml = new URL('../../../demo/families/tarn.yaml', import.meta.url)
const family = familySchema.parse(parse(readFileSync(yaml, 'utf8')))
const digestOf = (value: unknown): string =>
  createHash('sha256')
    .update(canonical(JSON.parse(JSON.stringify(value)) as Json))
    .digest('hex')

const facts: DeviceFacts = {
  model: 'BRAK-H2',
  board: 'r4',
  chipset: 'Slate 2',
  storageGb: 32,
  region: 'HI',
  carrier: 'O',
  serial: 'TRN1',
  mode: 'loader',
  build: 'H2.0ZC.r4',
  release: 4,
  patchDate: '2026-06-01',
  loaderVersion: 7,
  floor: 6,
  bootLock: 'closed',
  batteryPercent: 90,
  outcome: 'normal',
  returns: 0,
  scale: 256,
}
const image = (role: 'modem' | 'kernel' | 'support' | 'main') => ({
  role,
  partition: role,
  archive: 'a.tar',
  file: `${role}.img`,
  size: 65_536,
  storedSize: 65_536,
  sha256: digestOf(role),
})
const manifest: Manifest = {
  format: 'plain-slate/manifest@1',
  id: 'tarn-new',
  title: 'H2.0ZP.r4',
  maker: 'Brakken',
  family: 'tarn',
  kind: 'full',
  channel: 'stable',
  build: 'H2.0ZP.r4',
  release: 4,
  patchDate: '2026-07-01',
  generation: 6,
  scale: 256,
  archives: [{ file: 'a.tar' }],
  targets: [{ model: 'BRAK-H2', boards: ['r4'], chipset: 'Slate 2', storage: [32], region: 'HI' }],
  requires: {},
  together: [],
  effects: { erases: [] },
  images: [image('modem'), image('kernel'), image('support'), image('main')],
  published: { source: 'maker', sourceKind: 'maker', date: '2026-07-01', digests: {} },
}
const shelved = { key: manifest.id, manifest, state: 'published' } as const
const readings = Object.entries(facts).map(([fact, value]) => ({
  fact: fact as 'model',
  value: value as string,
  source: 'link' as const,
  at: ms(0),
  mode: undefined,
  person: undefined,
}))
const planned = makePlan({
  at: {
    family,
    byEye: false,
    placeless: [],
    lines: undefined,
    history: NO_HISTORY,
    today: '2026-10-15',
    identity: identify(family, readings),
    shelved,
    house: { ...USUAL_HOUSE, lawfulRegions: ['HI'] },
    intent: 'update',
    keepData: true,
    table: undefined,
    evidence: new Map(),
    shelf: [shelved],
  },
  mode: 'loader',
  permission: true,
})
if (!planned.ok) throw new Error(JSON.stringify(planned.refusal))
const plan = planned.value
const faults = [{ piece: 1, kind: 'cable' as const }]
const made = { family, plan, facts, catalogue: [manifest], pick: 0.4, faults }
const read = { facts, table: undefined, digests: new Map<string, string>() }
const { nature, device } = modelled(family, read, [manifest], 0.4)
const { journal } = runWithFaults(nature, device, plan, faults)
const entry = endedSchema.parse({
  seq: 9,
  act: 'run.ended',
  facts: {
    run: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009',
    seed: 7,
    plan: digestOf(plan),
    journal: digestOf(journal),
  },
})

describe('a run replayed', () => {
  it('comes to the journal that the book names', () => {
    expect(replay(entry, made)).toEqual({ kind: 'equal' })
  })

  it('differs by its plan when a byte of that is another', () => {
    const other = { ...plan, serial: 'TRN2' }
    expect(replay(entry, { ...made, plan: other })).toEqual({ kind: 'differs', what: 'plan' })
  })

  it('differs by its journal with another fault or another speed', () => {
    expect(replay(entry, { ...made, faults: [] })).toEqual({ kind: 'differs', what: 'journal' })
    expect(replay(entry, { ...made, pick: 0.5 })).toEqual({ kind: 'differs', what: 'journal' })
  })

  it('is asked only of entries that came from a seed', () => {
    const { seed, ...without } = entry.facts
    expect(seed).toBe(7)
    expect(endedSchema.safeParse({ ...entry, facts: without }).success).toBe(false)
    expect(endedSchema.safeParse({ ...entry, act: 'run.started' }).success).toBe(false)
  })
})
