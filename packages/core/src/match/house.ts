/**
 * What a house has decided where good technicians disagree, as far as judging and planning ask it. Reads nothing;
 * gives the schema, what each setting may be, and what a house begins with.
 */
import { z } from 'zod'
import { SCHOOLS } from '../terms/schools.ts'

const percent = z.int().min(0).max(100)
const seconds = z.int().min(0).max(3600)

/** How long hands are busy with each thing, in seconds. */
export const HAND_WORK = [
  'charge',
  'backup',
  'permission',
  'cable',
  'reset',
  'set-up',
  'confirm',
] as const
export type HandWork = (typeof HAND_WORK)[number]

export const houseSchema = z.strictObject({
  /** Percent of charge left at the end, on top of what the plan drains. */
  batteryMargin: percent.max(60),
  /** A fixed floor in percent, where the house sets one. */
  batteryFloor: percent.nullable(),
  /** Regions whose radio images may be operated where the house works. */
  lawfulRegions: z.array(z.string().min(1).max(12)).max(40).readonly(),
  writes: z.enum(SCHOOLS.writes),
  way: z.enum(SCHOOLS.way),
  build: z.enum(SCHOOLS.build),
  data: z.enum(SCHOOLS.data),
  source: z.enum(SCHOOLS.source),
  variant: z.enum(SCHOOLS.variant),
  digests: z.enum(SCHOOLS.digests),
  accounts: z.enum(SCHOOLS.accounts),
  backup: z.enum(SCHOOLS.backup),
  cards: z.enum(SCHOOLS.cards),
  relock: z.enum(SCHOOLS.relock),
  reset: z.enum(SCHOOLS.reset),
  downgrade: z.enum(SCHOOLS.downgrade),
  rescue: z.enum(SCHOOLS.rescue),
  transfer: z.enum(SCHOOLS.transfer),
  silence: z.enum(SCHOOLS.silence),
  into: z.enum(SCHOOLS.into),
  restarts: z.enum(SCHOOLS.restarts),
  handSeconds: z.record(z.enum(HAND_WORK), seconds).readonly(),
})
export type HouseRules = Readonly<z.infer<typeof houseSchema>>
/** The questions, in the order in which a page asks them. */
export const HOUSE_QUESTIONS = Object.keys(houseSchema.shape) as readonly (keyof HouseRules)[]

/** What a house begins with. Seconds: as technicians at the bench of the demo took them. */
export const USUAL_HOUSE: HouseRules = {
  batteryMargin: 20,
  batteryFloor: null,
  lawfulRegions: ['HI', 'EX'],
  writes: 'least',
  way: 'parts',
  build: 'same',
  data: 'keep',
  source: 'proven',
  variant: 'lawful',
  digests: 'always',
  accounts: 'proof',
  backup: 'always',
  cards: 'out',
  relock: 'close',
  reset: 'needed',
  downgrade: 'try',
  rescue: 'stock',
  transfer: 'again',
  silence: 'limit',
  into: 'command',
  restarts: 'family',
  handSeconds: {
    charge: 30,
    backup: 240,
    permission: 60,
    cable: 30,
    reset: 60,
    'set-up': 180,
    confirm: 10,
  },
}
