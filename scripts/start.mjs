/** `npm start`: sees to the packages, then hands over to start/main.ts in this same process. */
import { ensurePackages } from './bootstrap.mjs'
import { endInASentence } from './process/last-words.mjs'

endInASentence('npm start')

if (!process.argv.includes('--help')) ensurePackages()
const { register } = await import('tsx/esm/api').catch(() => {
  ensurePackages()
  return import('tsx/esm/api')
})
register()
const { start } = await import('./start/main.ts')
await start(process.argv.slice(2))
