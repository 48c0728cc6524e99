/** Vitest's set-up of the pure tests: properties run from a fixed seed. */
import fc from 'fast-check'
import { SEED } from './seed.ts'

fc.configureGlobal({ seed: SEED })
