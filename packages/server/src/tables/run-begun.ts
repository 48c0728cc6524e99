/**
 * What a run was begun with: its plan, commands, steps and places, by far the most of its row, and written once. Kept in the
 * process by the run's id, so that whoever shows or drives a run reads from the tables only what moves.
 */
import type { RunShown } from '@plain-slate/api'
import type { Command, CutClass, ImagePlace, Json, PlacedStep, Plan } from '@plain-slate/core'
import type { Database } from './database.ts'

export type PlaceRow = ImagePlace & { readonly image: string }
export type Begun = {
  readonly plan: Plan
  readonly commands: readonly Command[]
  readonly steps: readonly PlacedStep<CutClass>[]
  readonly places: readonly PlaceRow[]
  /** Partitions of the device at its start, in their order, at model size. */
  readonly wall: RunShown['wall']
  /** What a run of the twin was made from; null: a device was there. */
  readonly made: Json | null
}
const COLUMNS = ['plan', 'commands', 'steps', 'places', 'wall', 'made'] as const

/** As many as a list shows; past that whichever was asked for longest ago is read anew. */
const KEPT_MOST = 200

/** By the set-up of the database, which its transactions share. */
const kept = new WeakMap<object, Map<string, Begun>>()

/** Of each of these runs; one that is nowhere is left out. */
export async function begunWith(
  db: Database,
  ids: readonly string[],
): Promise<ReadonlyMap<string, Begun>> {
  const { config } = db.client as { readonly config: object }
  const mine = kept.get(config) ?? new Map<string, Begun>()
  kept.set(config, mine)
  const lacking = ids.filter((id) => !mine.has(id))
  const read = new Map(lacking.length === 0 ? [] : await readBegun(db, lacking))
  const asked = new Map<string, Begun>()
  for (const id of ids) {
    const one = mine.get(id) ?? read.get(id)
    if (one === undefined) continue
    asked.set(id, one)
    mine.delete(id)
    mine.set(id, one)
  }
  for (const id of mine.keys()) {
    if (mine.size <= KEPT_MOST) break
    mine.delete(id)
  }
  return asked
}

async function readBegun(db: Database, ids: readonly string[]): Promise<[string, Begun][]> {
  const found = (await db('runs')
    .whereIn('id', ids)
    .select('id', ...COLUMNS)) as (Begun & { readonly id: string })[]
  return found.map(({ id, ...begun }) => [id, begun])
}
