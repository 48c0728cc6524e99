/**
 * One simulated device over a process's own pipes: `stdio.ts FOLDER SERIAL`. For shops that wrap a
 * tool, and for the conformance suite, which runs over TCP and over this alike.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Duplex } from 'node:stream'
import { openBench } from './bench.ts'
import { readBenchFile, toImageFacts } from './bench-file.ts'
import { modelClock } from './clock.ts'
import { serveStream } from './serve-stream.ts'

const [, , folder = '', serial = ''] = process.argv
const file = readBenchFile(join(folder, 'bench.json'))
const secret = readFileSync(join(folder, 'link.secret'), 'utf8').trim()
const bench = await openBench({
  folder: join(folder, 'devices'),
  secret,
  pace: file.pace,
  ports: {},
  families: file.families,
  images: toImageFacts(file),
})
const device = bench.devices().find((one) => one.model.serial === serial)
if (device === undefined) {
  console.error(`There is no simulated device ${serial}.`)
  process.exit(2)
}
const stream = Duplex.from({ readable: process.stdin, writable: process.stdout })
const clock = modelClock(file.pace, device.model.at, Date.now)
serveStream(stream, { device, clock, secret, met: () => true })
stream.on('close', () => process.exit(0))
