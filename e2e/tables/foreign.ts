/**
 * Partition tables as the world makes them: by Debian's own tools, with common types, on a file of a flash's size. Gives
 * the table as it is read back, and its very bytes.
 */
import { spawnSync } from 'node:child_process'
import { closeSync, mkdtempSync, openSync, readFileSync, rmSync, truncateSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Piece, Table } from '@plain-slate/core'
import { decodeBytes } from '@plain-slate/core'

/** "Linux filesystem" as sgdisk writes it in short. */
const DATA = '8300'

export type Foreign = { readonly table: Table; readonly pieces: readonly Piece[] }
type Wanted = Pick<Table, 'partitions' | 'sectorBytes'>

/** Partition by partition with `sgdisk`: from this sector on, so many sectors free before each, the last to the end. */
export const bySgdisk =
  ({
    first,
    gap = 0,
    align = 1,
    type = DATA,
  }: {
    readonly first: number
    readonly gap?: number
    readonly align?: number
    readonly type?: string
  }) =>
  (diskBytes: number, ours: Wanted): Foreign =>
    onFile(diskBytes, ours.sectorBytes, (file) => {
      let next = first
      const parts = ours.partitions.flatMap(({ name, sectors }, at) => {
        const start = Math.ceil(next / align) * align
        next = start + sectors + gap
        const end = at === ours.partitions.length - 1 ? '0' : String(start + sectors - 1)
        const n = at + 1
        return [
          `--new=${n}:${start}:${end}`,
          `--change-name=${n}:${name}`,
          `--typecode=${n}:${type}`,
        ]
      })
      run('sgdisk', ['--clear', `--set-alignment=${align}`, ...parts, file])
    })

/** The same with `parted`, which also knows storages of 4,096-byte sectors. */
export const byParted =
  ({ first }: { readonly first: number }) =>
  (diskBytes: number, ours: Wanted): Foreign =>
    onFile(diskBytes, ours.sectorBytes, (file) => {
      let next = first
      const parts = ours.partitions.flatMap(({ name, sectors }, at) => {
        const start = next
        next = start + sectors
        const end = at === ours.partitions.length - 1 ? '100%' : `${start + sectors - 1}s`
        return ['mkpart', name, 'ext4', `${start}s`, end]
      })
      const sized = { PARTED_SECTOR_SIZE: String(ours.sectorBytes) }
      run('parted', ['--script', '--align', 'none', file, 'mklabel', 'gpt', ...parts], sized)
    })

function run(program: string, args: readonly string[], env: Readonly<Record<string, string>> = {}) {
  const made = spawnSync(program, args, { env: { ...process.env, ...env } })
  if (made.status !== 0)
    throw new Error(`${program}: ${made.stderr.toString()}${made.stdout.toString()}`)
}

function onFile(diskBytes: number, sectorBytes: number, make: (file: string) => void): Foreign {
  const folder = mkdtempSync(join(tmpdir(), 'foreign-'))
  const file = join(folder, 'disk')
  closeSync(openSync(file, 'w'))
  truncateSync(file, diskBytes)
  make(file)
  const disk = readFileSync(file)
  rmSync(folder, { recursive: true })
  const decoded = decodeBytes(disk, sectorBytes)
  if (!decoded.ok) throw new Error(`no table: ${decoded.refusal.kind}`)
  const { table } = decoded.value
  const head = table.firstUsable * sectorBytes
  const tail = (table.lastUsable + 1) * sectorBytes
  const pieces = [
    { at: 0, bytes: disk.subarray(0, head) },
    { at: tail, bytes: disk.subarray(tail) },
  ]
  return { table, pieces }
}
