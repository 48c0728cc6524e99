/** What a whole shop is made of: devices and packages of the demo, and what a test adds to them. */
import type { Family, ImageFacts } from '@plain-slate/core'
import { catalogueOf } from '@plain-slate/core'
import type { DemoDevice, Making, OwnImage, PackageDraft } from '@plain-slate/demo'
import {
  DEMO_DEVICES,
  DEMO_PACKAGES,
  DEMO_SCALE,
  buildPackage,
  demoFamilies,
  demoImages,
  idOfDraft,
  makeDevice,
  modifiedFacts,
  ownFacts,
} from '@plain-slate/demo'

/** What a test adds to the demo's world: devices, packages, and families that its devices are of. */
export type Added = {
  readonly families?: readonly Family[]
  readonly drafts?: readonly PackageDraft[]
  readonly devices?: readonly DemoDevice[]
  /** Images of owners' own that stand on no device yet. */
  readonly carried?: readonly OwnImage[]
  /** Partition tables that somebody else made, by the serial of the device that has one. */
  readonly tables?: Readonly<Record<string, NonNullable<Making['tableOf']>>>
}

export const familiesOf = ({ families = [] }: Added): readonly Family[] => [
  ...demoFamilies(),
  ...families,
]

/** Makes the devices of these serials, and those that were added, in a folder. */
export function makeDevices(folder: string, serials: readonly string[], added: Added): void {
  const here = DEMO_DEVICES.filter(({ serial }) => serials.includes(serial))
  for (const device of [...here, ...(added.devices ?? [])]) {
    const family = familiesOf(added).find(({ id }) => id === device.line.family)
    if (family === undefined) throw new Error(`no family ${device.line.family}`)
    const tableOf = added.tables?.[device.serial]
    const making = { folder, family, scale: DEMO_SCALE }
    makeDevice(tableOf === undefined ? making : { ...making, tableOf }, device)
  }
}

/** Every image that the stand-ins may hold, with what they know of it. */
export function imagesOf({
  drafts = [],
  devices = [],
  carried = [],
}: Added): readonly ImageFacts[] {
  const signed = catalogueOf([...DEMO_PACKAGES, ...drafts].map((one) => buildPackage(one).manifest))
  return [
    ...demoImages(),
    ...signed.values(),
    ...modifiedFacts(devices, signed),
    ...ownFacts(carried, signed),
  ]
}

export function draftNamed(
  name: string,
  drafts: readonly PackageDraft[] = DEMO_PACKAGES,
): PackageDraft {
  const draft = drafts.find((one) => idOfDraft(one) === name)
  if (draft === undefined) throw new Error(`no package ${name}`)
  return draft
}

/** A device of the demo. */
export function deviceOf(serial: string): DemoDevice {
  const device = DEMO_DEVICES.find((one) => one.serial === serial)
  if (device === undefined) throw new Error(`no device ${serial}`)
  return device
}
