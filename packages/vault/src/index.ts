export * from './folder.ts'
export * from './vault.ts'
