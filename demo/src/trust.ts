/** The public keys that the demo's shop trusts, by the names of their files. */
import { depotPem } from './packages/catalogue.ts'
import { makerPem } from './permits.ts'

export const DEMO_KEYS = [
  ['holm-depot', depotPem],
  ['corvane', makerPem],
] as const
