/** Proving a tar of 12 images against openssl's SHA-256 of the same file, in one run. */
import { execFileSync } from 'node:child_process'
import { createReadStream, createWriteStream, mkdtempSync, rmSync } from 'node:fs'
import { once } from 'node:events'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readTar, tarEnd, tarHeader } from '@plain-slate/archives'
import type { Row } from './row.ts'
import { alternating, spread } from './timed.ts'

const IMAGES = 12
const TOTAL_BYTES = 1024 ** 3
const CHUNK = 1 << 20

export async function proving(): Promise<readonly Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'proving-'))
  const file = join(folder, 'big.tar')
  await makeTar(file)
  const [ours, openssl] = await alternating([
    () => readTar(createReadStream(file, { highWaterMark: CHUNK })),
    () => execFileSync('openssl', ['dgst', '-sha256', file]),
  ])
  rmSync(folder, { recursive: true })
  if (ours === undefined || openssl === undefined) return []
  const ratio = ours.median / openssl.median
  return [
    {
      what: `proving a 1 GiB tar of ${IMAGES} images (archive and entries) against openssl dgst -sha256 of it`,
      measured: `${ratio.toFixed(2)} times (openssl ${spread(openssl)})`,
      limit: 'aim at most 1.5 times',
    },
  ]
}

async function makeTar(path: string): Promise<void> {
  const size = Math.floor(TOTAL_BYTES / IMAGES / CHUNK) * CHUNK
  const out = createWriteStream(path)
  const block = Buffer.alloc(CHUNK, 'slate and chalk ')
  for (let image = 0; image < IMAGES; image += 1) {
    out.write(tarHeader(`image-${image}.img`, size))
    for (let at = 0; at < size; at += CHUNK) if (!out.write(block)) await once(out, 'drain')
  }
  out.end(tarEnd())
  await once(out, 'finish')
}
