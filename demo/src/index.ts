export { DEMO_PEOPLE, idOf } from './people.ts'
export type { DemoPerson } from './people.ts'
export { DEMO_NOW, seedDemo } from './seed.ts'
export { DEMO_SLIPS } from './slips.ts'
