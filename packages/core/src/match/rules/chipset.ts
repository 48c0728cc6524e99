import { listed } from '../targets.ts'

/** The chipset is the one that the package lists: nothing of another can run. */
export const chipset = listed('chipset', 'nobody')
