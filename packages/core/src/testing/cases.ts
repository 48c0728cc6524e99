/** Slip 0417 as a case: the lead device, its table, the shelf; parts of it can be replaced. */
import { identify } from '../device/identity.ts'
import type { Evidence } from '../difference/least-write.ts'
import { familyTable } from '../family/layout.ts'
import type { Case } from '../match/rule.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import { NO_HISTORY } from '../match/rule.ts'
import { readings0417 } from './devices.ts'
import { SCALE, digestOf, newest, proven, shelf } from './packages.ts'
import { tarn } from './tarn.ts'

const MIB = 1024 * 1024
/** Flash of the demo device: its partitions at 1:256, and room for customer data. */
export const DISK_BYTES = 64 * MIB

const ROLES = ['modem', 'kernel', 'rescue', 'main', 'support', 'variant']

/** What the lead device says of its partitions: build 0ZC throughout. */
export const evidence0417 = new Map<string, Evidence>(
  ROLES.map((role) => [role, { kind: 'digest', sha256: digestOf(`${role} H2.0ZC.r4`) }]),
)

export function case0417(more: Partial<Case> = {}): Case {
  return {
    family: tarn,
    identity: identify(tarn, readings0417()),
    shelved: proven(newest),
    house: USUAL_HOUSE,
    intent: 'update',
    keepData: true,
    table: familyTable(tarn, { storageGb: 32 }, SCALE, DISK_BYTES),
    evidence: evidence0417,
    shelf,
    byEye: false,
    placeless: [],
    lines: undefined,
    history: NO_HISTORY,
    today: '2026-10-15',
    ...more,
  }
}
