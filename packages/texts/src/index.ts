export * from './plans.ts'
export * from './pseudo.ts'
export * from './say.ts'
export * from './steps.ts'
