/**
 * The demo's packages put on its shelf, in a process of its own: building and hashing them takes whole seconds at a
 * stretch, and whoever watches over the shop must not stand still. Run with the server's address and the file of the
 * bench's secret; prints one line, which begins with how it went.
 */
import { NotShelved, demoSenderAt, shelveDemo } from '@plain-slate/demo'
import { readFileSync } from 'node:fs'
import { DONE, REFUSED } from './shelve-demo.ts'

const [address = '', secretFile = ''] = process.argv.slice(2)
try {
  const secret = readFileSync(secretFile, 'utf8').trim()
  await shelveDemo(address, demoSenderAt(address, secret, 'Ilse'))
  console.log(DONE)
} catch (error) {
  if (!(error instanceof NotShelved)) throw error
  console.log(`${REFUSED} ${error.message.replaceAll('\n', ' ')}`)
}
