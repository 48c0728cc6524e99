/**
 * The far ends that writing is measured against, each a process of its own: `far-ends.ts plain` hashes
 * what comes over TCP and answers its digest; `far-ends.ts bench FOLDER` is the simulated bench with its
 * one device in the loader. Each prints the port it listens on.
 */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { openBench, readBenchFile } from '@plain-slate/standins'

const [, , what, folder = ''] = process.argv
if (what === 'plain') plain()
else await bench()

function plain(): void {
  const server = createServer({ allowHalfOpen: true }, (socket) => {
    const hash = createHash('sha256')
    socket.on('data', (bytes: Buffer) => hash.update(bytes))
    socket.on('end', () => socket.end(hash.digest('hex')))
  })
  server.listen(0, '127.0.0.1', () => console.log((server.address() as AddressInfo).port))
}

async function bench(): Promise<void> {
  const file = readBenchFile(join(folder, 'bench.json'))
  const opened = await openBench({
    folder: join(folder, 'devices'),
    secret: readFileSync(join(folder, 'link.secret'), 'utf8').trim(),
    pace: 0,
    ports: { P1: 0 },
    families: file.families,
    images: file.images,
  })
  for (const { model } of opened.devices())
    for (const to of ['off', 'loader'] as const)
      opened.act({ kind: 'keys', serial: model.serial, to })
  console.log(opened.ports['P1'])
}
