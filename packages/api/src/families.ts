/** Families as they are known here: each profile as its file says it, and what this bench measured of it. */
import {
  PACE_KEYS,
  REACHED,
  WRITTEN,
  leastOf,
  modeSchema,
  partRoleSchema,
  startOutcomeSchema,
} from '@plain-slate/core'
import { z } from 'zod'
import { anyJson } from './json.ts'
import { changeSchema } from './taken.ts'
import { sha256Schema } from './shelf.ts'
import { route } from './route.ts'

const familyRow = z.object({
  id: z.string(),
  version: z.int(),
  maker: z.string(),
  models: z.array(z.string()),
  modes: z.int(),
  /** SHA-256 of the profile as canonical JSON. */
  digest: sha256Schema,
  /** Slips under way whose device is of it. */
  slips: z.int(),
})
export type FamilyRow = z.infer<typeof familyRow>

const place = z.int().nonnegative()
/** What a family would do, tried on devices made for it: each start rule, mode and partition, and what can never happen. */
export const trialSchema = z.object({
  starts: z.array(
    z.union([
      z.object({ fires: z.literal(true), on: z.string(), outcome: startOutcomeSchema }),
      z.object({ fires: z.literal(false), why: z.literal('no-device'), condition: place }),
      z.object({
        fires: z.literal(false),
        why: z.literal('decided-before'),
        rules: z.array(place),
      }),
      z.object({ fires: z.literal(false), why: z.literal('not-at-once') }),
    ]),
  ),
  modes: z.array(
    z.object({
      mode: modeSchema,
      reached: z.enum(REACHED),
      ways: z.array(place),
      permission: z.boolean(),
      left: z.boolean(),
    }),
  ),
  parts: z.array(
    z.object({
      on: z.string(),
      kinds: place,
      parts: z.array(
        z.object({
          partition: z.string(),
          role: partRoleSchema,
          written: z.enum(WRITTEN),
          mode: modeSchema.nullable(),
          seconds: z.number().nullable(),
        }),
      ),
    }),
  ),
  never: place,
})

export const familyShownSchema = z.object({
  /** The profile as the server read it from its file, by the family's own schema. */
  family: anyJson,
  digest: sha256Schema,
  trial: trialSchema,
  /** Paces that this bench measured, with the runs they rest on; `least`: so many are needed to go by them. */
  own: z.partialRecord(
    z.enum(PACE_KEYS),
    z.object({ n: z.int(), low: z.number(), high: z.number() }),
  ),
  least: z.int(),
  /** Open slips whose plan was decided by another version: which, and whether it holds by this one too. */
  decided: z.array(
    z.object({
      number: z.string(),
      version: z.string(),
      changes: z.array(changeSchema).nullable(),
    }),
  ),
})
export type FamilyShown = z.infer<typeof familyShownSchema>

/** Characters of a family's file. */
export const FAMILY_CHARACTERS = 1024 * 1024

export const familyTakenSchema = z.object({
  /** Every place of the file that is wrong, by line; any: nothing of it is taken in. */
  wrong: z.array(z.object({ line: z.int(), path: z.string(), says: z.string() })),
  family: z
    .object({
      id: z.string(),
      version: z.int(),
      maker: z.string(),
      models: z.array(z.string()),
      modes: z.int(),
      /** The version that is known here; null: none. */
      known: z.int().nullable(),
      /** Models that another family names already. */
      clashes: z.array(z.object({ model: z.string(), family: z.string() })),
      decided: familyShownSchema.shape.decided,
      /** The profile as it was read, and what it would do. */
      profile: anyJson,
      trial: trialSchema,
    })
    .nullable(),
  taken: z.boolean(),
})
export type FamilyTaken = z.infer<typeof familyTakenSchema>

export const familyRoutes = {
  familyTake: route({
    method: 'post',
    path: '/api/families',
    needs: leastOf('family.take'),
    summary: 'Read a family’s file, and take it in where nothing is wrong with it',
    body: z.object({ text: z.string().min(1).max(FAMILY_CHARACTERS), take: z.boolean() }),
    answer: familyTakenSchema,
  }),
  families: route({
    method: 'get',
    path: '/api/families',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'The families of devices that are known here',
    answer: z.array(familyRow),
  }),
  family: route({
    method: 'get',
    path: '/api/families/{id}',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'One family: its profile, and what this bench measured of it',
    params: z.object({ id: z.string().min(2).max(24) }),
    answer: familyShownSchema,
  }),
}
