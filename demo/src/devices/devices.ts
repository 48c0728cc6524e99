/** The simulated devices of the demo: six hang on a port at the start, the others lie on the shelf. */
import type { DemoDevice } from './demo-device.ts'
import { IN_HOUSE } from './in-house.ts'
import { LEADING } from './leading.ts'

export type { DemoDevice } from './demo-device.ts'

export const DEMO_DEVICES: readonly DemoDevice[] = [...LEADING, ...IN_HOUSE]
