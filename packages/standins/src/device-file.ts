/**
 * A simulated device as it is kept between two runs of the bench process: its model, the written ranges
 * of its flash, the marked extents of its customer's data. JSON beside the flash file, written whole and
 * moved in place. A session that stands open in it was broken by the end of the process.
 */
import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import type { DeviceModel } from '@plain-slate/core'
import {
  fusedSchema,
  limitSchema,
  mergeSchema,
  modeSchema,
  partRoleSchema,
  slotSchema,
  startOutcomeSchema,
  storeSchema,
} from '@plain-slate/core'
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
  slot: z.exactOptional(slotSchema),
  blocks: whole,
  map: z.array(runSchema),
  was: z.exactOptional(z.string()),
})
const storedFile = z.object({
  store: storeSchema,
  name: z.string(),
  size: whole,
  holds: z.string(),
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
  files: z.array(storedFile).default([]),
  incoming: z.exactOptional(storedFile.extend({ got: whole })),
  confirmBy: z.exactOptional(z.number()),
  key: z.enum(['none', 'due', 'asked']).default('none'),
  permit: z.exactOptional(z.string()),
  spent: z.array(z.string()).default([]),
  battery: z.number().min(0).max(100),
  floors: z.partialRecord(z.union([partRoleSchema, z.literal('all')]), whole),
  lock: z.enum(['closed', 'open']),
  lockSwitch: z.boolean(),
  setUpAt: z.exactOptional(z.number()),
  permission: z.boolean(),
  loaderVersion: whole,
  slots: z.exactOptional(
    z.object({
      runs: slotSchema,
      tries: z.exactOptional(slotSchema),
      good: z.array(slotSchema),
    }),
  ),
  merge: mergeSchema,
  mergeUntil: z.exactOptional(z.number()),
  data: z.object({
    form: z.enum(['readable', 'unreadable', 'none']),
    release: whole,
    patchDate: z.string(),
    track: z.string(),
    resetAsked: z.boolean(),
    items: whole,
    bytes: whole,
  }),
  account: z.enum(['none', 'on', 'asked']),
  marks: z.array(z.string()),
  fresh: z.boolean(),
  outcome: startOutcomeSchema,
  limits: z.array(limitSchema),
  shows: z.exactOptional(z.string()),
  returns: whole,
  epoch: whole,
  at: z.number().nonnegative(),
})

export const deviceFileSchema = z.object({
  format: z.literal('plain-slate/stand-in@2'),
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
  /** Keys that do not answer any more. */
  brokenKeys: z.array(z.string()).default([]),
  extents: z.array(extentSchema),
  /** The customer's data: ranges of the disk that no write may ever touch. */
  marks: z.array(extentSchema),
  model: modelSchema,
})
type Stored = z.infer<typeof deviceFileSchema>
export type DeviceFile = Omit<Stored, 'model'> & { readonly model: DeviceModel }

type Older = { readonly format?: unknown; readonly model?: Readonly<Record<string, unknown>> }

/** A file of the first version, as the present one has it: one floor, data that were there and open or not. */
function upgraded(raw: unknown): unknown {
  const { format, model, ...rest } = raw as Older
  if (format !== 'plain-slate/stand-in@1' || model === undefined) return raw
  const { floor, data, outcome, ...plain } = model as { floor: number; outcome: string } & {
    data: { readable: boolean; release: number; items: number; bytes: number }
  }
  const { readable, ...figures } = data
  return {
    ...rest,
    format: 'plain-slate/stand-in@2',
    model: {
      ...plain,
      floors: { all: floor },
      lockSwitch: false,
      merge: 'none',
      data: {
        ...figures,
        form: readable ? 'readable' : 'unreadable',
        patchDate: '',
        track: '',
        resetAsked: false,
      },
      account: 'none',
      marks: [],
      fresh: false,
      outcome: outcome === 'no-radio' ? 'normal' : outcome,
      limits: outcome === 'no-radio' ? ['no-radio'] : [],
    },
  }
}

/** Reads a device. Throws ZodError or SyntaxError for a file that is none. */
export function readDevice(path: string): DeviceFile {
  const file = deviceFileSchema.parse(upgraded(JSON.parse(readFileSync(path, 'utf8'))))
  const parts = Object.fromEntries(
    Object.entries(file.model.parts).map(([name, part]) => [
      name,
      { ...part, slot: part.slot, was: part.was },
    ]),
  )
  const { session, slots, mergeUntil, setUpAt, shows, incoming, confirmBy, permit } = file.model
  const kept = slots === undefined ? undefined : { ...slots, tries: slots.tries }
  return {
    ...file,
    model: {
      ...file.model,
      ...{ parts, session, incoming, confirmBy, permit, mergeUntil, setUpAt, shows },
      slots: kept,
    },
  }
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
