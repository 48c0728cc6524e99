/** A device as it is, and hurt or changed in every way that a family's rules ask for. */
import type { Catalogue, ImageFacts } from '../twin/images.ts'
import type { DeviceModel, Part } from '../twin/state.ts'
import type { Bench } from './families.ts'

/** The device as it is, and hurt or changed in every way that a rule asks for. */
export function variants({ device, nature }: Bench): readonly DeviceModel[] {
  const parts = Object.entries(device.parts)
  const roles = [...new Set(parts.map(([, { role }]) => role))]
  const torn = parts.map(([name]) => withParts(device, ([one]) => one === name, tornPart))
  const allTorn = roles.map((role) => withParts(device, ([, part]) => part.role === role, tornPart))
  const allOthers = [...nature.catalogue.values()].map((image) =>
    withParts(
      device,
      ([, { role }]) => role === image.role,
      (part) => ({ ...part, was: image.image }),
    ),
  )
  const others = [...nature.catalogue.values()].flatMap((image) =>
    parts.flatMap(([name, { role, was }]) =>
      role === image.role && was !== image.image ? [withImage(device, name, image)] : [],
    ),
  )
  const { data, fused } = device
  const more: readonly Partial<DeviceModel>[] = [
    {},
    ...['all', ...roles].map((role) => ({ floors: { ...device.floors, [role]: 99 } })),
    { data: { ...data, release: 99 } },
    { data: { ...data, patchDate: '2030-01-01' } },
    { data: { ...data, track: 'T' } },
    { data: { ...data, form: 'unreadable', resetAsked: true } },
    { fused: { ...fused, region: 'ML' } },
    { merge: 'staged' },
  ]
  const all = [
    ...more.map((one) => ({ ...device, ...one })),
    ...torn,
    ...allTorn,
    ...others,
    ...allOthers,
    ...wholeSets(device, nature.catalogue),
  ]
  return all.flatMap((one) => (['open', 'closed'] as const).map((lock) => ({ ...one, lock })))
}

export const partsOfBuild = ({ device, nature }: Bench, build: string): DeviceModel['parts'] =>
  wholeSet(device, [...nature.catalogue.values()], build).parts

/** The device with every part of one build, for each build that is known. */
function wholeSets(device: DeviceModel, catalogue: Catalogue): readonly DeviceModel[] {
  const images = [...catalogue.values()].filter(({ modified }) => !modified)
  const builds = new Set(images.flatMap((one) => one.builds.map(({ build }) => build)))
  return [...builds].map((build) => wholeSet(device, images, build))
}

const wholeSet = (
  device: DeviceModel,
  images: readonly ImageFacts[],
  build: string,
): DeviceModel => ({
  ...device,
  parts: Object.fromEntries(
    Object.entries(device.parts).map(([name, part]) => {
      const of = images.find(
        (one) =>
          one.role === part.role &&
          !one.modified &&
          one.builds.some((made) => made.build === build),
      )
      return [name, of === undefined ? part : { ...part, was: of.image }]
    }),
  ),
})

const tornPart = (part: Part): Part => ({
  ...part,
  map: [{ from: 0, to: part.blocks, kind: 'torn' }],
})

const withParts = (
  device: DeviceModel,
  which: (entry: readonly [string, Part]) => boolean,
  change: (part: Part) => Part,
): DeviceModel => ({
  ...device,
  parts: Object.fromEntries(
    Object.entries(device.parts).map(([name, part]) => [
      name,
      which([name, part]) ? change(part) : part,
    ]),
  ),
})

export const withImage = (device: DeviceModel, name: string, { image }: ImageFacts): DeviceModel =>
  withParts(
    device,
    ([one]) => one === name,
    (part) => ({ ...part, was: image }),
  )
