/**
 * One header block of a tar: ustar (POSIX.1-1988), with the pax (POSIX.1-2001) and GNU ways of saying
 * more. Reads 512 bytes; gives the fields, or the rule they break. Leaves out what follows the block.
 */
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import type { ArchiveRefusal } from '../limits.ts'
import { nameText } from './names.ts'

export const BLOCK = 512

export type Header = {
  readonly name: string
  readonly size: number
  /** The type flag's character: "0" file, "5" folder, "x" pax, "L" GNU long name … */
  readonly type: string
  readonly linkName: string
  /** The whole block, for the GNU sparse fields. */
  readonly block: Uint8Array
}

/** True for a block of zeros, two of which end an archive. */
export const isZero = (block: Uint8Array): boolean => block.every((byte) => byte === 0)

/** Reads a header; the checksum is held first. */
export function readHeader(block: Uint8Array): Result<Header, ArchiveRefusal['rule']> {
  if (!checksumHolds(block)) return refuse('checksum')
  const size = numberAt(block, 124, 12)
  if (size === undefined) return refuse('number')
  const magic = fieldAt(block, 257, 6)
  const prefix = magic.startsWith('ustar') && block[262] === 0 ? fieldAt(block, 345, 155) : ''
  const name = fieldAt(block, 0, 100)
  return ok({
    name: prefix === '' ? name : `${prefix}/${name}`,
    size,
    type: String.fromCharCode(block[156] === 0 ? 0x30 : (block[156] ?? 0x30)),
    linkName: fieldAt(block, 157, 100),
    block,
  })
}

/** POSIX: the sum of all bytes with the checksum field as blanks; old writers summed signed bytes. */
function checksumHolds(block: Uint8Array): boolean {
  const told = numberAt(block, 148, 8)
  let unsigned = 0
  let signed = 0
  for (let at = 0; at < BLOCK; at += 1) {
    const byte = at >= 148 && at < 156 ? 0x20 : (block[at] ?? 0)
    unsigned += byte
    signed += byte > 127 ? byte - 256 : byte
  }
  return told === unsigned || told === signed
}

/** A field up to its NUL. */
export function fieldAt(block: Uint8Array, at: number, length: number): string {
  const field = block.subarray(at, at + length)
  const end = field.indexOf(0)
  return nameText(end < 0 ? field : field.subarray(0, end))
}

/** An octal field, or GNU's base 256 when the first bit is set; undefined for anything else. */
export function numberAt(block: Uint8Array, at: number, length: number): number | undefined {
  const first = block[at] ?? 0
  if (first === 0x80) return base256(block.subarray(at + 1, at + length))
  if (first > 0x80) return undefined
  const digits = fieldAt(block, at, length).trim()
  if (digits === '') return 0
  if (!/^[0-7]+$/.test(digits)) return undefined
  const value = Number.parseInt(digits, 8)
  return Number.isSafeInteger(value) ? value : undefined
}

function base256(bytes: Uint8Array): number | undefined {
  const value = bytes.reduce((sum, byte) => sum * 256 + byte, 0)
  return Number.isSafeInteger(value) ? value : undefined
}
