/**
 * The bench process: `main.ts FOLDER`. The folder holds `bench.json` beside a folder `devices`, and the
 * secrets `link.secret` and `control.secret` (0600). Prints where its control side and its ports listen.
 */
import { readFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { openBench } from './bench.ts'
import { readBenchFile } from './bench-file.ts'
import { controlServer } from './control.ts'

for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined)

const folder = process.argv[2]
if (folder === undefined) {
  console.error('Which folder?')
  process.exit(2)
}
const file = readBenchFile(join(folder, 'bench.json'))
const secretIn = (name: string) => readFileSync(join(folder, name), 'utf8').trim()
const bench = await openBench({
  folder: join(folder, 'devices'),
  secret: secretIn('link.secret'),
  pace: file.pace,
  ports: file.ports,
  families: file.families,
  images: file.images,
  permits: file.permits,
  computers: file.computers.map((one) => ({ ...one, file: join(folder, one.file) })),
})
const control = controlServer(bench, secretIn('control.secret'))
const port = Number(process.env['PLAIN_SLATE_CONTROL_PORT'] ?? 0)
control.listen(port, '127.0.0.1', () => {
  const { port: at } = control.address() as AddressInfo
  /** The start command waits for this line. */
  console.log(`listening ${JSON.stringify({ control: at, ports: bench.ports })}`)
})

for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    control.close()
    control.closeAllConnections()
    void bench.stop().then(() => process.exit(0))
  })
