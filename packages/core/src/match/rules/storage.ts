import { listed } from '../rule.ts'

/** The storage size is one that the package lists: layouts differ by it. */
export const storage = listed('storageGb', false)
