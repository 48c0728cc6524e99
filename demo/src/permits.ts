/** Permits that the demo's makers granted: for the phone of slip 0413, and for one that is not in the house. */
import type { Permit } from '@plain-slate/core'
import { deviceIdOf } from './devices/device-id.ts'

export const DEMO_PERMITS: readonly Permit[] = [
  { id: 'PM-2610-0413', device: deviceIdOf('COR4MB200413'), scope: 'service', until: '2026-11-30' },
  { id: 'PM-2610-0377', device: deviceIdOf('COR4MB200731'), scope: 'service', until: '2026-11-30' },
]
