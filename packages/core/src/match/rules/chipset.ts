import { listed } from '../rule.ts'

/** The chipset is the package's. Never overruled. */
export const chipset = listed('chipset', true)
