export * from './agent.ts'
export * from './config.ts'
export * from './journal.ts'
