/** The twin of slip 0417's device, for core's tests. */
import { USUAL_STATE } from './state.ts'
import { familyTable } from '../family/layout.ts'
import type { Plan } from '../plan/plan.ts'
import { makePlan } from '../route/make-plan.ts'
import type { Case } from '../match/rule.ts'
import { BLOCK_BYTES } from '../twin/blocks.ts'
import type { DeviceModel } from '../twin/state.ts'
import { catalogueOf } from '../twin/images.ts'
import { partOf } from '../twin/state.ts'
import { packagesOf } from '../twin/packages.ts'
import type { Nature } from '../twin/stepped.ts'
import { DISK_BYTES, case0417 } from './cases.ts'
import { SCALE, digestOf, image, loader7, newest, onDevice, pack, shelf } from './packages.ts'
import { tarn } from './tarn.ts'

/** Loader 6, which is on the device and on no shelf. */
const loader6 = pack({
  build: 'H2.0ZC.r4',
  id: 'tarn-loader-6',
  kind: 'part',
  title: 'loader 6',
  loaderVersion: 6,
  roles: ['loader'],
  images: [{ ...image('loader', 'loader 6'), sha256: digestOf('loader 6') }],
})

export function nature(more: Partial<Nature> = {}): Nature {
  const known = [...shelf.map(({ manifest }) => manifest), loader6]
  const packages = packagesOf(known)
  return { family: tarn, catalogue: catalogueOf(known), packages, scale: SCALE, pick: 0.5, ...more }
}

/** What stands on the device: build 0ZC, loader 6. */
const WAS: Readonly<Record<string, string>> = {
  loader: digestOf('loader 6'),
  ...Object.fromEntries(onDevice.images.map(({ partition, sha256 }) => [partition, sha256])),
}

/** The lead device's tickets. */
export const DATA: DeviceModel['data'] = {
  form: 'readable',
  release: 4,
  patchDate: '2026-06-01',
  track: '',
  resetAsked: false,
  items: 214,
  bytes: 1_300_000,
}

export function device0417(more: Partial<DeviceModel> = {}): DeviceModel {
  const table = familyTable(tarn, { storageGb: 32 }, SCALE, DISK_BYTES)
  const parts = table.partitions.map(({ name, sectors }) => {
    const role = tarn.partitions.find((one) => one.name === name)?.role ?? 'cache'
    const blocks = Math.floor((sectors * table.sectorBytes) / BLOCK_BYTES)
    return [name, partOf(role, blocks, WAS[name])] as const
  })
  return {
    ...USUAL_STATE,
    serial: 'TRN4490077F31',
    fused: {
      model: 'BRAK-H2K',
      board: 'r4',
      chipset: 'Slate 2',
      storageGb: 32,
      region: 'HI',
      carrier: 'O',
      deviceId: 'TRN-ID-31',
    },
    mode: 'normal',
    parts: Object.fromEntries(parts),
    battery: 71,
    floors: { all: 5 },
    loaderVersion: 6,
    slots: undefined,
    data: DATA,
    ...more,
  }
}

export function plan0417(more: Partial<Case> = {}, permission = true): Plan {
  const made = makePlan({ at: case0417(more), mode: 'normal', permission })
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  return made.value
}

export { loader7, newest }
