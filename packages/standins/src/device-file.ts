/**
 * A simulated device as it is kept between two runs of the bench process: its model, the written ranges
 * of its flash, the marked extents of its customer's data. JSON beside the flash file, written whole and
 * moved in place. A session that stands open in it was broken by the end of the process.
 */
import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import type { DeviceModel } from '@plain-slate/core'
import { fusedSchema, modeSchema, partRoleSchema, startOutcomeSchema } from '@plain-slate/core'
import { z } from 'zod'
import type { Extent } from './flash.ts'
import { withExtent } from './flash.ts'

const whole = z.int().nonnegative()
const extentSchema = z.object({ from: whole, to: whole })
const runSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('old'), from: whole, to: whole }),
  z.object({ kind: z.literal('erased'), from: whole, to: whole }),
  z.object({ kind: z.literal('torn'), from: whole, to: whole }),
  z.object({ kind: z.literal('image'), from: whole, to: whole, image: z.string(), at: whole }),
])
const partSchema = z.object({
  role: partRoleSchema,
  blocks: whole,
  map: z.array(runSchema),
  was: z.exactOptional(z.string()),
})
const modelSchema = z.object({
  serial: z.string().min(4).max(40),
  fused: fusedSchema,
  mode: modeSchema,
  parts: z.record(z.string(), partSchema),
  session: z.exactOptional(
    z.object({
      partition: z.string(),
      offset: whole,
      size: whole,
      image: z.string(),
      got: whole,
    }),
  ),
  battery: z.number().min(0).max(100),
  floor: whole,
  lock: z.enum(['closed', 'open']),
  permission: z.boolean(),
  loaderVersion: whole,
  data: z.object({ release: whole, readable: z.boolean(), items: whole, bytes: whole }),
  outcome: startOutcomeSchema,
  returns: whole,
  epoch: whole,
  at: z.number().nonnegative(),
})

export const deviceFileSchema = z.object({
  format: z.literal('plain-slate/stand-in@1'),
  /** A name for people, where the serial says too little. */
  name: z.string(),
  family: z.string(),
  scale: z.int().positive(),
  /** Where in its family's ranges this device lies, 0 to 1. */
  pick: z.number().min(0).max(1),
  diskBytes: z.int().positive(),
  sectorBytes: z.int().positive(),
  /** Bytes of the disk at which each partition begins. */
  starts: z.record(z.string(), whole),
  /** The port it is plugged into, and its cable; null: it lies on the bench. */
  port: z.string().nullable(),
  cellOut: z.boolean(),
  extents: z.array(extentSchema),
  /** The customer's data: ranges of the disk that no write may ever touch. */
  marks: z.array(extentSchema),
  model: modelSchema,
})
type Stored = z.infer<typeof deviceFileSchema>
export type DeviceFile = Omit<Stored, 'model'> & { readonly model: DeviceModel }

/** Reads a device. Throws ZodError or SyntaxError for a file that is none. */
export function readDevice(path: string): DeviceFile {
  const file = deviceFileSchema.parse(JSON.parse(readFileSync(path, 'utf8')))
  const parts = Object.fromEntries(
    Object.entries(file.model.parts).map(([name, part]) => [name, { ...part, was: part.was }]),
  )
  return { ...file, model: { ...file.model, parts, session: file.model.session } }
}

/**
 * The ranges of its flash that may have been written: those it kept, and the open piece's, of which bytes
 * may have come after the file was written last.
 */
export function extentsOf({ extents, starts, model: { session } }: DeviceFile): readonly Extent[] {
  if (session === undefined) return extents
  const from = (starts[session.partition] ?? 0) + session.offset
  return withExtent(extents, { from, to: from + session.size })
}

/** Writes a device whole: beside, then moved in place. */
export function writeDevice(path: string, file: DeviceFile): void {
  writeFileSync(`${path}.new`, JSON.stringify(file), { mode: 0o600 })
  renameSync(`${path}.new`, path)
}
