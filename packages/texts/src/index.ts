export * from './pseudo.ts'
export * from './say.ts'
