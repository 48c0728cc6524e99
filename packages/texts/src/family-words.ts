/**
 * A whole family in words, head by head: what its file says, then what it would do. Reads a profile and its trial; gives
 * heads with their lines, for the shell.
 */
import type { Fact, Family, Trial } from '@plain-slate/core'
import { trustOf } from '@plain-slate/core'
import {
  buildWords,
  partsWords,
  placeWords,
  rulesWords,
  startWords,
  takesWords,
} from './families.ts'
import type { Say } from './say.ts'
import type { TrialLine } from './trial.ts'
import { chordsOf, modeLines, neverLines, partLines, startLines } from './trial.ts'

export type Told = { readonly head: string; readonly lines: readonly string[] }

/** Heads in the order in which a technician asks: what it is, its modes, what is read, how it starts, what it would do. */
export function familyWords(say: Say, family: Family, trial: Trial): readonly Told[] {
  const { maker, models, modes, id, version } = family
  return [
    {
      head: say('family.title', { maker, models: models.length, modes: modes.length }),
      lines: [
        `${id} ${version}`,
        ...models.map(
          ({ code, name, boards, chipset, storages }) =>
            `${code}: ${name}; ${boards.join(', ')}; ${chipset}; ${storages.join(', ')} GB`,
        ),
        ...family.variants.map(({ region, carrier, name }) =>
          say('family.variant', { region, carrier, name }),
        ),
      ],
    },
    { head: say('family.build'), lines: buildWords(say, family) },
    { head: say('family.modes'), lines: modes.flatMap((mode) => modeWords(say, family, mode)) },
    {
      head: say('family.readings'),
      lines: Object.entries(family.facts).map(([name, places]) => {
        const fact = name as Fact
        const read = places.map((place) =>
          placeWords(say, family, { ...place, trust: trustOf(family, fact, place.source) }),
        )
        return `${say(`fact.${fact}`)}: ${read.join('; ')}`
      }),
    },
    { head: say('family.layouts'), lines: partsWords(say, family) },
    {
      head: say('family.start'),
      lines: [
        ...family.start.map((rule, at) => `${at + 1}. ${startWords(say, family, rule)}`),
        say('family.start.else'),
      ],
    },
    { head: say('family.rules'), lines: rulesWords(say, family) },
    ...wouldDo(say, family, trial),
  ]
}

function modeWords(say: Say, family: Family, mode: Family['modes'][number]): readonly string[] {
  const { name, looks } = mode
  const ways = family.ways.filter(({ from, to }) =>
    from === 'any' ? to !== mode.id : from.includes(mode.id),
  )
  const nameOf = (wanted: string) => family.modes.find((one) => one.id === wanted)?.name ?? wanted
  return [
    `${name} – ${looks}; ${takesWords(say, mode)}`,
    ...ways.map(
      ({ to, say: words, seconds }) =>
        `  ${say('family.way', { to: nameOf(to), say: words, seconds })}`,
    ),
  ]
}

function wouldDo(say: Say, family: Family, trial: Trial): readonly Told[] {
  const lined = ({ what, says }: TrialLine) => `${what} – ${says}`
  return [
    {
      head: `${say('trial.title')}: ${say('trial.never', { n: trial.never })}`,
      lines: neverLines(say, family, trial).map(lined),
    },
    { head: say('trial.starts'), lines: startLines(say, family, trial).map(lined) },
    { head: say('trial.modes'), lines: modeLines(say, family, trial).map(lined) },
    ...trial.parts.map(({ on, kinds, parts }) => ({
      head: `${say('trial.parts')}: ${say('trial.kinds', { first: on, more: kinds - 1 })}`,
      lines: partLines(say, family, parts).map(lined),
    })),
    {
      head: say('trial.chords'),
      lines: chordsOf(say, family).flatMap(({ what, say: words, acts, slip }) => [
        `${what}: ${words}`,
        ...acts.map((act, at) => `  ${at + 1}. ${act}`),
        `  ${slip}`,
      ]),
    },
  ]
}
