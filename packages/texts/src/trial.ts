/**
 * What a family would do, in words: which of its rules were fired and on what, how each mode is reached, what is written
 * where, each chord act by act; and what can never happen. Reads a profile and its trial; gives lines.
 */
import type { Family, PartTried, RuleTried, Trial, ModeTried, Way } from '@plain-slate/core'
import { handActWords } from './hand-acts.ts'
import { conditionWords, startWords } from './families.ts'
import type { Say } from './say.ts'

/** A line of what was tried; `never`: it can never happen. */
export type TrialLine = {
  readonly what: string
  readonly says: string
  readonly never: boolean
}

const list = (words: readonly string[]): string => words.join(', ')
const nameOf = ({ modes }: Family, mode: string): string =>
  modes.find(({ id }) => id === mode)?.name ?? mode

/** Each start rule, and the device on which it was fired. */
export const startLines = (say: Say, family: Family, { starts }: Trial): readonly TrialLine[] =>
  starts.flatMap((one, at) => {
    const rule = family.start[at]
    if (rule === undefined) return []
    const what = startWords(say, family, rule)
    return [{ what, says: firedWords(say, rule, one), never: !one.fires }]
  })

function firedWords(say: Say, rule: Family['start'][number], one: RuleTried): string {
  if (one.fires)
    return say('trial.start.fired', { on: one.on, end: say(`trial.outcome.${one.outcome}`) })
  switch (one.why) {
    case 'no-device': {
      const condition = rule.when[one.condition]
      return say('trial.start.no-device', {
        condition: condition === undefined ? '' : conditionWords(say, condition),
      })
    }
    case 'decided-before':
      return say(one.rules.length === 1 ? 'trial.start.before' : 'trial.start.before.either', {
        rules: list(one.rules.map((at) => String(at + 1))),
      })
    case 'not-at-once':
      return say('trial.start.not-at-once')
  }
}

/** Each mode, and how it is reached. */
export const modeLines = (say: Say, family: Family, { modes }: Trial): readonly TrialLine[] =>
  modes.map((one) => ({
    what: nameOf(family, one.mode),
    says: [reachedWords(say, family, one), ...(one.left ? [] : [say('trial.mode.kept')])].join(' '),
    never: one.reached === 'never' || !one.left,
  }))

function reachedWords(say: Say, family: Family, one: ModeTried): string {
  if (one.reached !== 'acts') return say(`trial.mode.${one.reached}`)
  const first = family.ways[one.ways[0] ?? 0]?.from
  const begins = family.modes.filter(
    ({ id, kind }) =>
      (kind === 'off' || kind === 'system') && (first === 'any' || first?.includes(id)),
  )
  const by = [
    list(begins.map(({ name }) => name)),
    ...one.ways.map((at) => nameOf(family, family.ways[at]?.to ?? '')),
  ].join(' → ')
  return say(one.permission ? 'trial.mode.permitted' : 'trial.mode.acts', { by })
}

/** Each partition of a kind of device, and what writes it. */
export const partLines = (
  say: Say,
  family: Family,
  parts: readonly PartTried[],
): readonly TrialLine[] =>
  parts.map((one) => ({
    what:
      one.partition === one.role
        ? one.partition
        : say('trial.part', { name: one.partition, role: one.role }),
    says: writtenWords(say, family, one),
    never: one.written === 'none',
  }))

const MINUTE = 60
function writtenWords(say: Say, family: Family, { written, mode, seconds }: PartTried): string {
  if (mode === null || seconds === null || (written !== 'link' && written !== 'open'))
    return say(`trial.part.${written}`)
  const time =
    seconds < MINUTE
      ? say('trial.seconds', { n: Math.max(1, Math.round(seconds)) })
      : say('trial.minutes', { n: Math.round(seconds / MINUTE) })
  return say(`trial.part.${written}`, { mode: nameOf(family, mode), time })
}

/** A way that hands go: where from, where to, what is held, act by act. */
export type Chord = {
  readonly what: string
  readonly say: string
  readonly acts: readonly string[]
  /** Ids of the keys that it names, and their names with the numbers that they bear on the outline. */
  readonly keys: readonly string[]
  readonly names: readonly string[]
  readonly slip: string
}

/** Every way of the family that hands go. */
export const chordsOf = (say: Say, family: Family): readonly Chord[] =>
  family.ways.filter(({ hands }) => hands).map((way) => chordOf(say, family, way))

function chordOf(say: Say, family: Family, { from, to, say: words, acts = [], slip }: Way): Chord {
  const held = new Set(acts.flatMap(({ keys = [] }) => keys))
  const keysOf = (ids: readonly string[] = []) =>
    ids.map((id) => ({ name: family.outline.keys.find((key) => key.id === id)?.name ?? id }))
  return {
    what: say('trial.chord', {
      from: from === 'any' ? say('trial.anywhere') : list(from.map((one) => nameOf(family, one))),
      to: nameOf(family, to),
    }),
    say: words,
    acts: acts.map((act) =>
      handActWords(say, {
        do: act.do,
        keys: keysOf(act.keys),
        seconds: act.seconds ?? null,
        until: act.until ?? null,
        within: act.within ?? null,
        say: act.say ?? null,
      }),
    ),
    keys: [...held],
    names: family.outline.keys.flatMap(({ id, name }, at) =>
      held.has(id) ? [`${at + 1} ${name}`] : [],
    ),
    slip:
      slip === undefined
        ? say('trial.chord.no-slip')
        : say('trial.chord.slip', { say: slip.say, leads: nameOf(family, slip.leads) }),
  }
}

/** Everything that it says and that can never happen, each once. */
export function neverLines(say: Say, family: Family, trial: Trial): readonly TrialLine[] {
  const all = [
    ...startLines(say, family, trial),
    ...modeLines(say, family, trial),
    ...trial.parts.flatMap(({ parts }) => partLines(say, family, parts)),
  ]
  const once = new Map(
    all.filter(({ never }) => never).map((one) => [`${one.what}: ${one.says}`, one]),
  )
  return [...once.values()]
}
