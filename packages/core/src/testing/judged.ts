/**
 * Devices and packages of which a rule of fit has something to say: a handheld, a phone of another carrier's, a
 * tablet, each with what is changed about it.
 */
import { identify } from '../device/identity.ts'
import { familyTable } from '../family/layout.ts'
import type { Manifest, OutsideSource, PackageState } from '../firmware/manifest.ts'
import { judge } from '../match/judge.ts'
import type { BroughtPermit } from '../match/permit.ts'
import type { Case } from '../match/rule.ts'
import type { Fact } from '../terms/device.ts'
import type { Line } from '../terms/line.ts'
import { DISK_BYTES, case0417 } from './cases.ts'
import { reading, readings0417, without } from './devices.ts'
import { alder, benchOf, caseOf, fen, packageOf } from './families.ts'
import { SCALE, digestOf, image as imageOf, newest, proven, onDevice } from './packages.ts'
import { tarn } from './tarn.ts'

const [aTarget] = newest.targets
const [anImage] = newest.images
if (aTarget === undefined || anImage === undefined) throw new Error('no target or image')
/** The first of the newest package. */
export const [target, image] = [aTarget, anImage]

/** What a rule says of a case; undefined: nothing. */
export function saysOf(rule: string, at: Case): string | undefined {
  const finding = judge(at).findings.find((one) => one.rule === rule)
  return finding && `${finding.verdict} ${finding.code.split('.').at(-1) ?? ''}`
}

/** The newest package, changed. */
export const of = (more: Partial<Manifest>): Case =>
  case0417({ shelved: proven({ ...newest, ...more }) })
/** The newest package, on a device that shows something else. */
export const shows = (...facts: readonly (readonly [Fact, string | number])[]): Case =>
  case0417({
    identity: identify(
      tarn,
      readings0417(facts.map(([fact, value]) => reading(fact, value, 'link', 2000))),
    ),
  })
export const unread = (...facts: readonly Fact[]): Case =>
  case0417({ identity: identify(tarn, without(...facts)) })
/** By what the data were last used a person says, and nothing else. */
export const toldRelease = case0417({
  identity: identify(tarn, [...without('release'), reading('release', 4, 'person')]),
})
/** An older build, and by what the data were last used nobody read; and they need not survive. */
export const unreadOld: Case = { ...unread('release'), shelved: proven(onDevice) }
export const unreadMayGo: Case = { ...unreadOld, keepData: false }
/** The newest package with a loader of its own in it. */
export const loads = (loaderVersion: number, more: Partial<Manifest> = {}): Case =>
  of({ loaderVersion, images: [...newest.images, imageOf('loader', newest.build)], ...more })
/** The newest package asking for a radio, on a device with 3.1. */
export const asksRadio = (minRadio: string, more: Partial<Manifest> = {}): Case => ({
  ...shows(['radioVersion', '3.1']),
  shelved: proven({ ...newest, radioVersion: '2.0', requires: { minRadio }, ...more }),
})
export const aimed = (more: Partial<Manifest['targets'][number]>): Case =>
  of({ targets: [{ ...target, ...more }] })
export const state = (is: PackageState): Case =>
  case0417({ shelved: { ...proven(newest), state: is } })
/** The newest package, vouched for by somebody outside. */
export const vouched = (by: OutsideSource, date = '2026-10-01'): Case =>
  case0417({ shelved: { ...proven(newest), state: 'published', vouched: { by, date } } })
export const said = (lines: Readonly<Record<string, string>>, at: Case = case0417()): Case => ({
  ...at,
  lines: new Map(
    Object.entries(lines).map(([topic, answer]): [string, Line] => [
      topic,
      { topic, answer, at: 1 },
    ]),
  ),
})
export const doubted = case0417({
  identity: identify(tarn, readings0417([reading('board', 'r5', 'screen')])),
})
export const named = case0417({
  identity: identify(tarn, [...without('model'), reading('model', 'BRAK-H2K', 'box')]),
})

/* Phones: one that is of carrier S, and the same build for O. */
export const phoneBuild = (
  name: string,
  carrier: string,
  more: Partial<Manifest> = {},
): Manifest => {
  const usual = { model: 'CORV-5N', board: 'C', build: name, release: 20, ...more }
  const made = packageOf(alder, usual)
  return { ...made, targets: made.targets.map((one) => ({ ...one, carriers: [carrier] })) }
}
export const sold = phoneBuild('20-2634.0-HS', 'S')
export const open = phoneBuild('20-2634.0-HO', 'O')
export const phone = (aim: Manifest, more: Partial<Case> = {}, change: object = {}): Case => {
  const bench = benchOf({ family: alder, on: sold, shelf: [open], more: change })
  const { fused } = bench.device
  return caseOf(
    { ...bench, device: { ...bench.device, fused: { ...fused, carrier: 'S' } } },
    aim,
    more,
  )
}
export const variant = open.images.filter(({ role }) => role === 'variant')
export const ofMainland: Manifest = {
  ...open,
  targets: open.targets.map((one) => ({ ...one, region: 'ML' })),
}
const exported = packageOf(alder, { model: 'CORV-5X', board: 'E', build: '20-2630.0-EO' })
/** A phone of the row whose emergency calls are not certified here. */
export const ofExport = ((bench) =>
  caseOf(
    { ...bench, device: { ...bench.device, fused: { ...bench.device.fused, region: 'EX' } } },
    exported,
  ))(benchOf({ family: alder, on: exported }))
export const variantPart: Manifest = { ...open, kind: 'part', together: [], images: variant }
export const wants = { intent: 'variant-change', keepData: true } as const
export const serviceImages = sold.images.filter(({ role }) => alder.signedSet.includes(role))
export const serving: Manifest = { ...sold, kind: 'service', images: serviceImages }
export const permit: BroughtPermit = {
  id: 'PM-1',
  device: 'ALDER-ID-1',
  scope: 'service',
  until: '2026-11-30',
  signed: { maker: 'Corvane', key: 'corvane', from: '2026-10-01', packages: [serving.id] },
}
/** The same as a lead typed it. */
export const permitTyped: BroughtPermit = { ...permit, signed: undefined, said: '2026-10-05' }
export const service = (more: Partial<Case> = {}): Case =>
  phone(serving, { intent: 'service', permit, ...more })
export const generations = (one: number): Manifest =>
  phoneBuild('20-2640.0-HS', 'S', { generation: one })
export const opened = { lock: 'open' } as const
/** A relock by a package without a rescue, of a phone whose rescue is its owner's own. */
export const ownRescueLeft: Case = phone(
  { ...sold, images: sold.images.filter(({ role }) => role !== 'rescue') },
  {
    intent: 'relock',
    evidence: new Map([['rescue', { kind: 'digest', sha256: digestOf('somebody’s own') }]]),
  },
  opened,
)
export const b1 = packageOf(alder, {
  model: 'CORV-4N',
  board: 'B1',
  build: '20-2640.0-HO',
  release: 20,
})
export const faulty = caseOf(benchOf({ family: alder, on: b1 }), b1)

/* Tablets. */
export const tabletBuild = (name: string, more: Partial<Manifest> = {}): Manifest =>
  packageOf(fen, { model: 'OSTR-11A', board: 'g1', build: name, release: 8, track: 'S', ...more })
export const onTablet = tabletBuild('FEN-26.20B-S')
export const tablet = (merge: 'none' | 'staged' | 'merging', aim = onTablet): Case =>
  caseOf(benchOf({ family: fen, on: onTablet, more: { merge } }), aim)
/** A build whose loader is older than the one that runs; each side has its own. */
export const olderLoader = tabletBuild('FEN-26.30A-S', { loaderVersion: 30 })
export const slotted = (...slots: readonly string[]): Manifest => ({
  ...onTablet,
  images: onTablet.images.slice(0, slots.length).map((one, index) => ({
    ...one,
    partition: `${one.role}_${slots[index] ?? 'a'}`,
  })),
})
export const slotName = fen.partitions.find(({ slot }) => slot === 'a')?.name ?? ''

export const increment = { kind: 'incremental', requires: { exactBuild: 'H2.0ZC.r4' } } as const
export const heavy: Partial<Manifest> = {
  ...increment,
  archives: [{ file: image.archive, sha256: digestOf('heavy'), bytes: 10 ** 12 }],
}
export const light: Partial<Manifest> = {
  ...increment,
  archives: [{ file: image.archive, sha256: digestOf('light'), bytes: 1000 }],
}
export const other = familyTable(tarn, { storageGb: 64 }, SCALE, DISK_BYTES)
const asItShould = familyTable(tarn, { storageGb: 32 }, SCALE, DISK_BYTES)
/** One in which main begins where calibration lies, as a broken tool leaves it. */
export const underMain = {
  ...asItShould,
  partitions: asItShould.partitions.map((one) =>
    one.name === 'main'
      ? { ...one, start: asItShould.partitions.find(({ name }) => name === 'calib')?.start ?? 0 }
      : one,
  ),
}
export const blind = {
  ...tarn,
  modes: tarn.modes.map(({ takes: { table: _, ...takes }, ...one }) => ({ ...one, takes })),
}
