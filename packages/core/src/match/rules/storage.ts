import { listed } from '../targets.ts'

/** The storage size is one that the package lists: layouts differ by it. */
export const storage = listed('storageGb', 'two')
