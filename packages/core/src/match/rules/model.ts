import { listed } from '../rule.ts'

/** The model code is one that the package lists; a sales name is never enough. */
export const model = listed('model', false)
