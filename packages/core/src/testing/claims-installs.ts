/** What comes of files and installs of a family, for the test that changes each of its fields. */
import { placedSteps } from '../command/placed.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { fold } from '../plan/folds.ts'
import type { PlanWay } from '../plan/install.ts'
import { makePlan } from '../route/make-plan.ts'
import type { ImageFacts } from '../twin/images.ts'
import { packagesOf } from '../twin/packages.ts'
import type { DeviceModel } from '../twin/state.ts'
import { step } from '../twin/twin.ts'
import type { Bench } from './families.ts'
import { caseOf } from './families.ts'
import { digestOf } from './packages.ts'
import { partsOfBuild, withImage } from './variants.ts'

/** A package as its archive lies there, whole and as an increment, and every act with files in a mode. */
export function installing(bench: Bench, aims: readonly Manifest[], mode: string): unknown {
  const { nature, device } = bench
  const whole = aims.flatMap((one) => [one, incrementOf(bench, one)])
  const plights: readonly Partial<DeviceModel>[] = [
    ...[100, 30, 29, 26, 25, 24, 21, 20, 19].map((battery) => ({ battery })),
    { floors: { all: 99, loader: 99, modem: 99, main: 99 } },
    { fused: { ...device.fused, board: 'another' } },
    { parts: changedParts(bench) },
    { merge: 'staged' as const },
    { parts: partsOfBuild(bench, aims[0]?.build ?? '') },
  ]
  return whole.flatMap((manifest) => {
    const [archive] = manifest.archives
    const { sha256: holds = '', bytes: size = 0 } = archive ?? {}
    return bench.family.stores.flatMap(({ id: store }) =>
      plights.map((plight) => {
        const name = 'a.tar'
        const file = { store, name, size, holds }
        const at = { ...device, ...plight, mode, lock: 'open' as const }
        const bytes = (size_: number) =>
          step(
            nature,
            at,
            { kind: 'file-put', epoch: 1, store, name, size: size_, image: holds },
            0,
          ).output
        const copied = step(
          nature,
          { ...at, incoming: { ...file, got: 0 } },
          { kind: 'chunk', epoch: 1, offset: 0, size },
          0,
        )
        const held = { ...at, files: [file, { ...file, name: 'b.bin' }] }
        const told = [name, 'b.bin', undefined].map((one) => {
          const {
            output,
            device: now,
            doneAt,
          } = step(nature, held, { kind: 'install', store, name: one }, 0)
          return [output, doneAt, now.confirmBy, now.merge, now.permission]
        })
        const gone = step(nature, held, { kind: 'reset' }, 0).device.files
        return [bytes(size), bytes(2 ** 28), bytes(2 ** 28 + 4096), copied.doneAt, told, gone]
      }),
    )
  })
}

/** An increment from what is on the device. */
const incrementOf = ({ shelf: [on] }: Bench, manifest: Manifest): Manifest => ({
  ...manifest,
  kind: 'incremental',
  requires: { ...manifest.requires, exactBuild: on?.build ?? '' },
  archives: manifest.archives.map((one) => ({
    ...one,
    sha256: digestOf(`increment ${manifest.id}`),
  })),
})

/** Its packages as a shelf knows them, with their increments. */
export const packagesIn = (bench: Bench, aims: readonly Manifest[]) =>
  packagesOf(aims.flatMap((one) => [one, incrementOf(bench, one)]))

/** Its main part is its owner's. */
function changedParts({ device, nature }: Bench): DeviceModel['parts'] {
  const own = [...nature.catalogue.values()].find(
    ({ role, modified }) => modified && role === 'main',
  )
  return withImage(
    device,
    Object.entries(device.parts).find(
      ([, { role, slot }]) => role === 'main' && slot !== 'b',
    )?.[0] ?? '',
    own as ImageFacts,
  ).parts
}

export function plannedBy(bench: Bench, aim: Manifest, way: PlanWay): unknown {
  const { device } = bench
  return [aim, incrementOf(bench, aim)].flatMap((one) =>
    (
      [
        ['downgrade', true],
        ['downgrade', false],
        ['relock', false],
      ] as const
    ).map(([intent, keepData]) => {
      const at = caseOf(bench, one, { intent, keepData })
      const made = makePlan({ at, mode: device.mode, permission: true, way })
      if (!made.ok) return made.refusal
      const { value } = made
      return [value, fold(value, at), placedSteps(value, bench.family, new Map(), 'unaffected')]
    }),
  )
}
