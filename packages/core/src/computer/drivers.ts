/**
 * Which driver a mode's link needs, and how the one that is installed stands to it. Reads a family and what a computer
 * tells; gives a standing a driver. A version is a count of its maker's: behind by so many.
 */
import { answersIn } from '../family/modes.ts'
import type { Driver, Family } from '../family/profile.ts'
import type { Mode } from '../terms/device.ts'
import type { Computer } from './told.ts'

/** There; there and older than its maker's newest; too old to be used; not there. */
export const DRIVER_STANDINGS = ['there', 'old', 'too-old', 'missing'] as const

export type DriverStanding = {
  readonly driver: Driver
  readonly is: (typeof DRIVER_STANDINGS)[number]
  /** Undefined: it is not there. */
  readonly version: number | undefined
}

type Links = Pick<Family, 'modes' | 'drivers'>

/** The driver of a mode's link; undefined: it needs none of its own, or has no link. */
export const driverOf = (family: Links, mode: Mode): Driver | undefined =>
  answersIn(family, mode) ? family.drivers.find(({ modes }) => modes.includes(mode)) : undefined

export function standingOfDriver(
  driver: Driver,
  { drivers }: Pick<Computer, 'drivers'>,
): DriverStanding {
  const version = drivers.find(({ id }) => id === driver.id)?.version
  return { driver, version, is: standing(driver, version) }
}

function standing({ least, newest }: Driver, version: number | undefined): DriverStanding['is'] {
  if (version === undefined) return 'missing'
  if (version < least) return 'too-old'
  return version < newest ? 'old' : 'there'
}

/** Whether a device in this mode is heard by this computer. */
export function isHeard(family: Links, mode: Mode, told: Pick<Computer, 'drivers'>): boolean {
  const driver = driverOf(family, mode)
  if (driver === undefined) return true
  const { is } = standingOfDriver(driver, told)
  return is === 'there' || is === 'old'
}

/** The drivers that some of these modes need, each once with the modes that need it. */
export function driversFor(
  family: Links,
  modes: readonly Mode[],
  told: Pick<Computer, 'drivers'>,
): readonly (DriverStanding & { readonly modes: readonly Mode[] })[] {
  return family.drivers.flatMap((driver) => {
    const needing = [...new Set(modes)].filter((mode) => driverOf(family, mode) === driver)
    return needing.length === 0 ? [] : [{ ...standingOfDriver(driver, told), modes: needing }]
  })
}
