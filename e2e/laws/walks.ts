/** Many walks in one shop, and what they say: acts a person can repeat, chances each law had, states that were met. */
import type { Act } from './act.ts'
import { KINDS } from './law-shop.ts'
import type { LawShop } from './law-shop.ts'
import type { Broken, Walked } from './walk.ts'
import { chosen, given, walk } from './walk.ts'

export type Tally = {
  walks: number
  readonly acts: Map<string, number>
  readonly chances: Map<string, number>
  readonly met: Map<string, number>
  /** Notes that were acknowledged. */
  readonly notes: string[]
  readonly failed: {
    readonly seed: number
    readonly acts: readonly Act[]
    readonly broken: Broken
  }[]
}
export const newTally = (): Tally => ({
  walks: 0,
  acts: new Map(),
  chances: new Map(),
  met: new Map(),
  notes: [],
  failed: [],
})
const count = (map: Map<string, number>, key: string, n = 1) =>
  map.set(key, (map.get(key) ?? 0) + n)

/** Tries to make a failing walk shorter, at most. */
const SHRINKS = 30

/** Walks given acts on the last copy of the first kind; what breaks is told under seed 0. */
export async function playRoad(
  shop: LawShop,
  acts: readonly Act[],
  copy: number,
  tally: Tally,
): Promise<void> {
  const [kind] = KINDS
  if (kind === undefined) return
  const walked = await walk(shop, { kind, serial: kind.serial(copy), port: 'P1' }, given(acts))
  add(tally, walked)
  const [broken] = walked.broken
  if (broken !== undefined) tally.failed.push({ seed: 0, acts: walked.acts, broken })
}

/** Plays the walks of these seeds at a port, each on a device of its own while there are some. */
export async function playWalks(
  shop: LawShop,
  seeds: readonly number[],
  how: {
    readonly acts: number
    readonly port: string
    readonly copies: number
    readonly hard: (seed: number) => boolean
  },
  tally: Tally,
): Promise<void> {
  for (const seed of seeds) {
    const kind = KINDS[seed % KINDS.length] ?? KINDS[0]
    if (kind === undefined) return
    const serial = (n: number) => kind.serial(Math.floor(n / KINDS.length) % how.copies)
    const about = { kind, serial: serial(seed), port: how.port }
    const walked = await walk(shop, about, chosen(seed, how.acts, how.hard(seed)))
    add(tally, walked)
    const [broken] = walked.broken
    if (broken === undefined) continue
    const acts = await shrunk(
      shop,
      { ...about, serial: serial(seed + KINDS.length) },
      walked.acts,
      broken,
    )
    tally.failed.push({ seed, acts, broken })
  }
}

function nameOf(act: Act): string {
  if (act.do === 'run') return `run ${act.word}`
  if (act.do === 'deed') return `deed ${act.deed}`
  return act.do === 'break' ? `break ${act.act}` : act.do
}

function add(tally: Tally, { acts, chances, met, memory }: Walked): void {
  tally.walks += 1
  tally.notes.push(...memory.notes)
  for (const act of acts) count(tally.acts, nameOf(act))
  for (const [law, n] of chances) count(tally.chances, law, n)
  for (const state of met) count(tally.met, state)
}

/** The same law broken by fewer acts, each left out in turn; as it was where it is not broken again. */
async function shrunk(
  shop: LawShop,
  about: Parameters<typeof walk>[1],
  acts: readonly Act[],
  broken: Broken,
): Promise<readonly Act[]> {
  let best = acts.slice(0, broken.after + 1)
  let tries = 0
  for (
    let size = Math.ceil(best.length / 3);
    size >= 1 && tries < SHRINKS;
    size = Math.floor(size / 2)
  )
    for (let from = best.length - 1 - size; from >= 0 && tries < SHRINKS; from -= size) {
      const fewer = [...best.slice(0, from), ...best.slice(from + size)]
      tries += 1
      const again = await walk(shop, about, given(fewer))
      if (again.broken.some(({ law }) => law === broken.law)) best = fewer
    }
  return best
}

/** A walk that broke a law, as a person repeats it. */
export const failureTold = ({
  seed,
  acts,
  broken: { law, says },
}: Tally['failed'][number]): string =>
  [
    `law ${law.number} (${law.says}), seed ${seed}: ${says}`,
    ...acts.map((act, n) => `  ${n + 1}. ${JSON.stringify(act)}`),
  ].join('\n')

/** How often each act, state and law came up, the most often first. */
export function tallyTold({ walks, acts, chances, met }: Tally): string {
  const list = (title: string, counts: ReadonlyMap<string, number>) =>
    [
      `${title}:`,
      ...[...counts].sort(([, a], [, b]) => b - a).map(([what, n]) => `  ${n} ${what}`),
    ].join('\n')
  return [
    `${walks} walks`,
    list('acts', acts),
    list('walks that met', met),
    list('chances of laws', chances),
  ].join('\n')
}
