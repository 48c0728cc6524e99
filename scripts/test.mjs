/** `npm test`: sees to the packages, then hands over to test/main.ts in this same process. */
import { ensurePackages } from './bootstrap.mjs'
import { endInASentence } from './process/last-words.mjs'

endInASentence('npm test')

ensurePackages()
const { register } = await import('tsx/esm/api')
register()
const { test } = await import('./test/main.ts')
await test(process.argv.slice(2))
