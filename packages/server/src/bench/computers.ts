/** The computers of the bench as a page shows them: every driver that a family here needs, and how it stands. */
import type { ComputerShown } from '@plain-slate/api'
import type { Family } from '@plain-slate/core'
import { modeName, standingOfDriver } from '@plain-slate/core'
import { VERSION } from '../base/version.ts'
import type { ComputerRow } from '../tables/devices.ts'

export function computerShown(
  families: readonly Family[],
  { agent, ports, computer }: ComputerRow,
): ComputerShown {
  const probe = computer?.probe ?? null
  return {
    agent,
    bench: computer?.bench ?? null,
    ports: [...ports],
    version: computer?.version ?? null,
    same: computer === null || computer.version === VERSION,
    freeMiB: computer?.freeMiB ?? null,
    told: probe,
    drivers: probe === null ? [] : families.flatMap((family) => driversOf(family, probe)),
  }
}

const driversOf = (
  family: Family,
  probe: Parameters<typeof standingOfDriver>[1],
): ComputerShown['drivers'] =>
  family.drivers.map((driver) => {
    const { is, version } = standingOfDriver(driver, probe)
    const { id, name, modes, least, newest } = driver
    const named = modes.map((mode) => modeName(family, mode))
    return {
      ...{ id, name, least, newest, is },
      maker: family.maker,
      modes: named,
      version: version ?? null,
    }
  })
