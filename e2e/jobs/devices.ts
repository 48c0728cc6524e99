/** Devices of jobs that the demo has none of, met by the API and on the pages. */
import type { DemoDevice } from '@plain-slate/demo'
import { TARN_R4 } from '@plain-slate/demo'
import { deviceOf } from '../bench/world.ts'

/** Somebody's write stopped in its main part; the kernel is of a build before, its data were used by the newest. */
export const HALF_WRITTEN: DemoDevice = {
  ...deviceOf('COR4MB200424'),
  serial: 'COR4MB200906',
  name: 'half written by somebody',
  build: '20-2638.0-HO',
  strange: { kernel: '20-2632.0-HO' },
  torn: ['main'],
  mode: 'off',
  permission: false,
  more: { lock: 'open', lockSwitch: true, outcome: 'loop', returns: 3 },
}

/** Somebody's update of it stopped before its main part; what was written is of the newest build. */
export const STOPPED: DemoDevice = {
  ...deviceOf('TRN449000426A6'),
  serial: 'TRN4490019J19',
  name: 'most of the newest build is on it',
  line: TARN_R4,
  strange: Object.fromEntries(
    ['modem', 'kernel', 'support', 'variant'].map((role) => [role, 'H2.104.r4']),
  ),
  mode: 'off',
  permission: false,
}
