/** The server process: configured by its environment, ended by SIGTERM or SIGINT. */
import { fileURLToPath } from 'node:url'
import { readConfig } from './base/config.ts'
import { serve } from './serve.ts'
import { VERSION } from './base/version.ts'

const WEB_DIST = fileURLToPath(new URL('../../web/dist', import.meta.url))

for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined)

const config = readConfig(process.env)
if (!config.ok) {
  console.error(config.refusal)
  process.exit(2)
}
const running = await serve(config.value, WEB_DIST, { version: VERSION, jobs: true })
/** The start command waits for this line. */
console.log(`listening ${running.port}`)

let stopping = false
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => {
    if (stopping) return
    stopping = true
    running.stop().then(
      () => process.exit(0),
      () => process.exit(1),
    )
  })
}
