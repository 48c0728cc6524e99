/** Packages with an image of an owner's own, and what the rules say of them. */
import type { CarriedRole } from '../firmware/carried.ts'
import { withCarried } from '../firmware/carried.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Case } from '../match/rule.ts'
import { alder, benchOf, caseOf, packageOf } from './families.ts'
import { said } from './judged.ts'
import { digestOf } from './packages.ts'
import { tarn } from './tarn.ts'

/** An owner's image of a role in a package. `serial`: whose device it is for. */
export const carriedIn = (
  base: Manifest,
  serial: string,
  role: CarriedRole = 'kernel',
): Manifest => {
  const size = base.images.find((one) => one.role === role)?.size ?? 0
  const sha256 = digestOf(`own ${role} ${base.build}`)
  const own = { role, file: `${role}.img`, size, sha256, percent: 81 }
  const archive = { file: 'own.tar', sha256: digestOf(`archive of own ${role} ${base.build}`) }
  return withCarried(base, [own], { archive, serial })
}

const early = packageOf(alder, {
  model: 'CORV-4N',
  board: 'B1',
  build: '20-2640.0-HO',
  release: 20,
})
const benched = benchOf({ family: alder, on: early, more: { lock: 'open' } })
const own = carriedIn(early, benched.device.serial)
const at = (more: Partial<Case> = {}, lock: 'open' | 'closed' = 'open'): Case =>
  caseOf({ ...benched, device: { ...benched.device, lock } }, own, more)
const yes = { 'consent.carried': 'yes' }
const makers: Case = { ...at({}, 'closed'), family: { ...alder, lock: tarn.lock } }

export const CARRIED_SAID: readonly (readonly [rule: string, say: string, at: Case])[] = [
  ['package.carried', 'agreed', said(yes, at())],
  ['package.carried', 'ask', at()],
  ['package.carried', 'refused', said({ 'consent.carried': 'no' }, at())],
  ['package.carried', 'another', caseOf(benched, carriedIn(early, 'SOMEBODY-ELSES'))],
  ['package.carried', 'closes', said(yes, at({ intent: 'relock' }))],
  ['package.carried', 'closed', said(yes, at({}, 'closed'))],
  ['package.carried', 'maker', said(yes, makers)],
  ['state.lock', 'carried', at({ act: 'close' })],
  ['state.known-fault', 'replaced', at()],
  [
    'package.published',
    'carried',
    ((one) => ({ ...one, shelved: { ...one.shelved, state: 'whole' } }))(at()),
  ],
]
