/**
 * A family as small as one can be, made up for tests alone: two parts, two modes that answer, words that no other
 * family uses. What holds for it holds because a profile says so.
 */
import { familySchema } from '@plain-slate/core'
import type { DemoDevice, Line, PackageDraft } from '@plain-slate/demo'
import { draftOf } from '@plain-slate/demo'

const asked = (...modes: readonly string[]) => [
  { source: 'link', modes, where: 'asked', seconds: 3 },
]
const ways = [
  { from: ['lit'], to: 'ajar', how: 'command', seconds: 4, hands: false, say: 'by itself' },
  { from: ['ajar'], to: 'lit', how: 'command', seconds: 4, hands: false, say: 'by itself' },
  { from: ['dark'], to: 'ajar', how: 'keys', seconds: 9, hands: true, say: 'Press the wick down.' },
  { from: ['lit'], to: 'dark', how: 'keys', seconds: 5, hands: true, say: 'Blow.' },
]
const mode = (id: string, kind: string, takes: object) => ({
  id,
  kind,
  name: `the ${id} one`,
  looks: id,
  confusedWith: [],
  takes,
  charges: kind !== 'writing',
})

export const TINY = familySchema.parse({
  format: 'plain-slate/family@2',
  id: 'tallow',
  version: 1,
  maker: 'Tallow',
  sectorBytes: 512,
  cell: 'sealed',
  pieceMiB: 64,
  keptOnce: [],
  models: [{ code: 'T1', name: 'Tallow 1', boards: ['t'], chipset: 'Wax 1', storages: [8] }],
  variants: [{ region: 'HI', carrier: 'O', name: 'sold everywhere' }],
  outline: {
    wide: 60,
    high: 60,
    keys: [{ id: 'one', name: 'the one key', side: 'top', from: 0.4, to: 0.6 }],
    port: { side: 'bottom', at: 0.5 },
  },
  build: {
    segments: [{ kind: 'counter', name: 'number', alphabet: 'xyz', width: 2 }],
    order: ['number'],
    alike: [],
    lookAlikes: {},
  },
  facts: {
    model: asked('lit', 'ajar'),
    board: asked('lit', 'ajar'),
    chipset: asked('ajar'),
    storageGb: asked('ajar'),
    region: asked('ajar'),
    carrier: asked('ajar'),
    build: asked('lit'),
    release: asked('lit'),
    patchDate: asked('lit'),
    floor: asked('ajar'),
    serial: asked('lit', 'ajar'),
    batteryPercent: asked('lit', 'ajar'),
  },
  modes: [
    mode('dark', 'off', {}),
    mode('lit', 'system', { tally: 'any' }),
    mode('ajar', 'writing', { write: ['main'], digest: 'any', table: 'any', erase: ['customer'] }),
  ],
  ways,
  partitions: [
    { name: 'flame', role: 'main', mib: 200 },
    { name: 'yours', role: 'customer', mib: 'rest' },
  ],
  layouts: [],
  writeOrder: ['main'],
  restartAfter: [],
  never: ['customer'],
  signedSet: ['main'],
  start: [
    { when: [{ set: 'torn' }], end: { kind: 'stays', mode: 'ajar' }, says: 'no flame' },
    { when: [{ data: 'newer-release' }], end: { kind: 'asks-reset' }, says: 'not mine' },
  ],
  floors: { kept: 'one', rules: [{ roles: 'any', refused: 'write', rises: ['first-start'] }] },
  lock: { opens: 'maker-only' },
  dataKeys: { hangOn: ['release'], tracksBack: [] },
  permission: { what: 'a nod', steps: ['nod at it'], clearedBy: ['wipe'] },
  drivers: [],
  adopts: [],
  wipe: ['customer'],
  account: { asksAfterReset: false, lockTakes: [] },
  marks: [],
  knownFaults: [],
  remedies: [{ trouble: 'transfer', does: 'again', chance: 90, minutes: 1, hands: 0, of: 0 }],
  stores: [],
  installs: [],
  items: [{ id: 'verses', name: 'verses', partition: 'yours' }],
  pace: {
    write: { mibPerSecond: [5, 6] },
    digest: { mibPerSecond: [50, 50] },
    erase: { seconds: [1, 2] },
    restart: { seconds: [2, 3] },
    'first-start': { seconds: [20, 30] },
    'first-start-wiped': { seconds: [30, 40] },
  },
  silentSeconds: {},
  drainPerMinute: { writing: 0.1, 'first-start': 0.1, idle: 0.1 },
})

export const TINY_LINE: Line = {
  key: 'tallow',
  family: TINY.id,
  maker: TINY.maker,
  imageMib: { main: 180 },
  partitions: { main: 'flame' },
  full: ['main'],
  builds: ['xy', 'xz', 'yx'],
  targets: [
    { model: 'T1', boards: ['t'], chipset: 'Wax 1', storage: [8], region: 'HI', carriers: ['O'] },
  ],
  usual: { generation: 1, together: [['main']] },
  loaderByVersion: false,
}

export const TINY_PACKAGES: readonly PackageDraft[] = [
  draftOf(TINY_LINE, 'xy', { release: 1, patchDate: '2026-01-01' }),
  draftOf(TINY_LINE, 'xz', { release: 2, patchDate: '2026-02-01' }),
  draftOf(TINY_LINE, 'yx', { release: 2, patchDate: '2026-03-01', generation: 2 }),
]

const RELEASES: Readonly<Record<string, number>> = { xy: 1, xz: 2, yx: 2 }

/** A device of it, its data last used by the build that is on it. */
export const candle = (more: Partial<DemoDevice> = {}): DemoDevice => ({
  serial: 'T1-0001',
  name: 'a candle',
  fused: {
    model: 'T1',
    board: 't',
    chipset: 'Wax 1',
    storageGb: 8,
    region: 'HI',
    carrier: 'O',
  },
  line: TINY_LINE,
  build: 'xz',
  loader: 0,
  strange: {},
  floor: 1,
  battery: 90,
  mode: 'lit',
  port: null,
  permission: true,
  items: 7,
  pick: 0.5,
  more: {
    data: {
      form: 'readable',
      release: RELEASES[more.build ?? 'xz'] ?? 0,
      patchDate: '2026-02-01',
      track: '',
      resetAsked: false,
      items: 7,
      bytes: 700,
    },
  },
  ...more,
})
