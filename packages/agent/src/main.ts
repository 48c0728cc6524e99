/** The agent process: configured by its environment, ended by SIGTERM or SIGINT. */
import { startAgent } from './agent.ts'
import { readConfig } from './config.ts'

for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined)

const config = readConfig(process.env)
if (!config.ok) {
  console.error(config.refusal)
  process.exit(2)
}
const agent = await startAgent(config.value)
/** The start command waits for this line. */
console.log('listening')

for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => void agent.stop().finally(() => process.exit(0)))
