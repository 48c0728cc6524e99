/** Families, packages and devices under other names of modes and partitions, for tests: nothing may know one. */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Mode } from '../terms/device.ts'

/** A mode by a name that says nothing, the same for the same family. */
export const renamedMode = (family: Family, mode: Mode): Mode =>
  `zz-${family.modes.findIndex(({ id }) => id === mode)}`

/** A partition by a name that says nothing. */
export const renamedPart = (partition: string): string =>
  [...partition].reverse().join('').toUpperCase()

/** The family with every mode and partition named otherwise. */
export function renamedFamily(family: Family): Family {
  const mode = (id: Mode) => renamedMode(family, id)
  const modes = (ids: readonly Mode[] | 'any') => (ids === 'any' ? ids : ids.map(mode))
  return {
    ...family,
    modes: family.modes.map((one) => ({
      ...one,
      id: mode(one.id),
      name: `a mode of kind ${one.kind}`,
      confusedWith: one.confusedWith.map((other) => ({ ...other, mode: mode(other.mode) })),
    })),
    ways: family.ways.map(({ slip, ...way }) => ({
      ...way,
      from: modes(way.from),
      to: mode(way.to),
      ...(slip === undefined ? {} : { slip: { ...slip, leads: mode(slip.leads) } }),
    })),
    facts: Object.fromEntries(
      Object.entries(family.facts).map(([fact, places]) => [
        fact,
        places.map((place) => ({ ...place, modes: modes(place.modes) })),
      ]),
    ),
    partitions: family.partitions.map((one) => ({ ...one, name: renamedPart(one.name) })),
    items: family.items.map((one) => ({ ...one, partition: renamedPart(one.partition) })),
  }
}

/** A package for it. */
export const renamedManifest = (manifest: Manifest): Manifest => ({
  ...manifest,
  images: manifest.images.map((one) => ({ ...one, partition: renamedPart(one.partition) })),
  effects: { ...manifest.effects, erases: manifest.effects.erases.map(renamedPart) },
})
