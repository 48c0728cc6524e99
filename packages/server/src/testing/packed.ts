/** Small packages for tests of the shelf, and sending them as a shop's own machine would. */
import { createHash } from 'node:crypto'
import type { Archive } from '@plain-slate/api'
import { tarOf } from '@plain-slate/archives'
import { atShell } from './agent.ts'

export const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
export const MAIN = Buffer.alloc(3000, 7)
export const image = (bytes: Buffer, archive = 'x.tar') => ({
  role: 'main',
  partition: 'main',
  archive,
  file: 'main.img',
  size: bytes.length,
  storedSize: bytes.length,
  sha256: sha256(bytes),
})
export const manifest = (id: string, more: object = {}, bytes = MAIN) => ({
  format: 'plain-slate/manifest@1',
  id,
  title: id,
  maker: 'Brakken',
  family: 'tarn',
  kind: 'full',
  channel: 'stable',
  build: 'H2.104.r4',
  release: 5,
  patchDate: '2026-10-01',
  generation: 6,
  scale: 1,
  archives: [{ file: 'x.tar' }],
  targets: [{ model: 'BRAK-H2K', boards: ['r4'], chipset: 'Slate 2', storage: [32] }],
  requires: {},
  together: [],
  effects: { erases: [] },
  images: [image(bytes)],
  published: { source: 'Brakken', sourceKind: 'maker', date: '2026-10-01', digests: {} },
  ...more,
})
export const json = (value: unknown) => Buffer.from(JSON.stringify(value))
export const packed = (id: string, more: object = {}, bytes = MAIN) =>
  tarOf([
    { name: 'manifest.json', bytes: json(manifest(id, more, bytes)) },
    { name: 'main.img', bytes },
  ])

export async function sendArchive(
  address: string,
  bytes: Uint8Array,
  query: Readonly<Record<string, string>> = {},
) {
  const text = new URLSearchParams({ name: 'x.tar', ...query }).toString()
  const response = await fetch(`${address}/api/shelf/archives?${text}`, {
    method: 'POST',
    headers: { ...(await atShell(address)), 'content-type': 'application/octet-stream' },
    body: Buffer.from(bytes),
  })
  return (await response.json()) as Archive & { code?: string }
}
