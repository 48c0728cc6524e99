/**
 * Permits that a maker of the demo granted: for the phone of slip 0413, and for one that is not in the house. As their
 * maker sends them they are signed files; the key is the demo's own, from a seed that everybody can read.
 */
import type { Permit, UnsignedPermit } from '@plain-slate/core'
import { PERMIT_FORMAT, permitSigned } from '@plain-slate/core'
import { keyFrom, pemOf, signedBy } from './keys.ts'
import { deviceIdOf } from './devices/device-id.ts'

export const DEMO_PERMITS: readonly Permit[] = [
  { id: 'PM-2610-0413', device: deviceIdOf('COR4MB200413'), scope: 'service', until: '2026-11-30' },
  { id: 'PM-2610-0377', device: deviceIdOf('COR4MB200731'), scope: 'service', until: '2026-11-30' },
]

const makerKey = () => keyFrom('the demo maker, who permits nothing real')

/** The maker's public key as a trust store holds it. */
export const makerPem = (): string => pemOf(makerKey())

/** A permit as its maker sends it: a file's text, signed. */
export function permitFile(permit: Permit, more: Partial<UnsignedPermit> = {}): string {
  const unsigned: UnsignedPermit = {
    format: PERMIT_FORMAT,
    maker: 'Corvane',
    packages: ['alder-service-20-2638.9'],
    from: '2026-10-01',
    ...permit,
    ...more,
  }
  const signature = signedBy(makerKey(), permitSigned(unsigned))
  return JSON.stringify({ ...unsigned, signature }, null, 2)
}
