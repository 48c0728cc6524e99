/**
 * Bytes that a run still needs, looked at before its first verb: gone from the shelf, or not what they were. Every
 * range is read whole and digested once; a device is not begun on with bytes that it would refuse half way.
 */
import { createHash } from 'node:crypto'
import type { Command, StopReason } from '@plain-slate/core'
import type { Vault } from '@plain-slate/vault'

export type Lies = {
  readonly image: string
  readonly archive: string
  readonly offset: number
  readonly size: number
}

/** The first image of these commands whose bytes are missing or damaged; undefined: all are as they were. */
export async function brokenBytes(
  vault: Vault,
  places: readonly Lies[],
  commands: readonly Command[],
): Promise<Extract<StopReason, { kind: 'bytes' }> | undefined> {
  const needed = new Set(commands.flatMap((one) => (sends(one) ? [one.image] : [])))
  for (const image of needed) {
    const place = places.find((one) => one.image === image)
    const what = place === undefined ? 'missing' : await brokenAt(vault, place)
    if (what !== undefined) return { kind: 'bytes', image, what }
  }
  return undefined
}

const sends = (command: Command): command is Extract<Command, { kind: 'put' | 'copy' | 'push' }> =>
  command.kind === 'put' || command.kind === 'copy' || command.kind === 'push'

async function brokenAt(
  vault: Vault,
  { image, archive, offset, size }: Lies,
): Promise<'missing' | 'damaged' | undefined> {
  const here = await vault.size(archive)
  if (here === undefined) return 'missing'
  if (here < offset + size) return 'damaged'
  const hash = createHash('sha256')
  const range = { from: offset, to: offset + size }
  for await (const part of await vault.read(archive, range)) hash.update(part as Uint8Array)
  return hash.digest('hex') === image ? undefined : 'damaged'
}
