/**
 * What the computer of a port tells, as the gate asks it: drivers for every mode on the way, programs that hold the port,
 * what puts port or machine to sleep, room for the journal. Where nobody tells, nothing of it is asked.
 */
import type { DriverStanding } from '../computer/drivers.ts'

/** What the plan needs of the computer, as it stands there. */
export type GateComputer = {
  /** Drivers of the modes that the plan meets its device in. */
  readonly drivers: readonly {
    readonly name: string
    readonly is: DriverStanding['is']
    /** Versions that it is behind its maker's newest. */
    readonly behind: number
    readonly modes: string
  }[]
  /** Programs that hold its port; where it is not seen, any port. */
  readonly rivals: readonly { readonly port: string; readonly program: string }[]
  readonly powerSaving: boolean
  readonly sleepMinutes: number | null
  readonly freeMiB: number
}

/** Less than this free, in MiB, and a run's journal may find no place. */
const DISK_LEAST = 512
const MINUTE = 60

/** A check of the computer; `asked` false: there is nothing to look at. */
export type ComputerCheck = {
  readonly check: 'driver' | 'rival' | 'power' | 'sleep' | 'disk'
  readonly asked?: boolean
  readonly holds: boolean
  readonly facts: Readonly<Record<string, string | number>>
}

type At = {
  readonly computer: GateComputer | undefined
  readonly plan: { readonly seconds: number } | undefined
  readonly port: string | undefined
}

/** What the computer tells: drivers on the whole way, who else holds the port, what puts port or machine to sleep. */
export function computerChecks({ computer, plan, port = '' }: At): readonly ComputerCheck[] {
  if (computer === undefined) return []
  const { drivers, rivals, powerSaving, sleepMinutes, freeMiB } = computer
  const lacking = drivers.filter(({ is }) => is === 'missing' || is === 'too-old')
  const old = drivers.filter(({ is }) => is === 'old')
  const names = (list: typeof drivers) => list.map(({ name }) => name).join(', ')
  const minutes = Math.ceil((plan?.seconds ?? 0) / MINUTE)
  return [
    {
      check: 'driver',
      asked: drivers.length > 0,
      holds: lacking.length === 0,
      facts: {
        lacking: names(lacking),
        modes: lacking.map(({ modes }) => modes).join(', '),
        old: names(old),
        behind: Math.max(0, ...old.map(({ behind }) => behind)),
      },
    },
    {
      check: 'rival',
      holds: rivals.length === 0,
      facts: {
        programs: rivals.map(({ program }) => program).join(', '),
        ports: rivals.map((one) => one.port).join(', '),
      },
    },
    { check: 'power', asked: port !== '', holds: !powerSaving, facts: { port } },
    {
      check: 'sleep',
      holds: sleepMinutes === null || sleepMinutes > minutes,
      facts: { after: sleepMinutes ?? 0, minutes },
    },
    { check: 'disk', holds: freeMiB >= DISK_LEAST, facts: { free: freeMiB, least: DISK_LEAST } },
  ]
}
