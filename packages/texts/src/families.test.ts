/** A family's sentences follow its data: each declared value moves its sentence, and no other. */
import { readFileSync } from 'node:fs'
import type { Family } from '@plain-slate/core'
import { familySchema } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import {
  buildWords,
  partsWords,
  placeWords,
  rulesWords,
  startWords,
  takesWords,
} from './families.ts'
import { speaker } from './say.ts'

const say = speaker('en-GB')
const read = (name: string): Family =>
  familySchema.parse(
    parse(readFileSync(new URL(`../../../demo/families/${name}.yaml`, import.meta.url), 'utf8')),
  )
const [tarn, alder, fen] = [read('tarn'), read('alder'), read('fen')]
const told = (family: Family): readonly string[] => [
  ...rulesWords(say, family),
  ...partsWords(say, family),
  ...buildWords(say, family),
  ...family.start.map((rule) => startWords(say, family, rule)),
  ...family.modes.map((mode) => takesWords(say, mode)),
]
/** Sentences that are other ones for the change. */
const moved = (family: Family, change: (family: Family) => unknown): readonly string[] => {
  const other = structuredClone(family)
  change(other)
  const before = told(family)
  return told(other).filter((one) => !before.includes(one))
}

describe('what is said of a family', () => {
  it.each<[string, Family, (family: Family) => unknown, readonly string[]]>([
    [
      'when a floor rises',
      tarn,
      ({ floors }) => (floors.rules[0] ? (floors.rules[0].rises = ['write']) : 0),
      ['Of every part: what is below is refused as it is written; it rises at the write.'],
    ],
    [
      'days that the switch is greyed',
      alder,
      ({ lock }) => (lock.opens === 'command' ? (lock.greyedDays = 3) : 0),
      [
        'Its boot lock is opened by a command once the owner’s switch allows it, 3 days after set-up. Opening it wipes.',
      ],
    ],
    [
      'carriers on which it never opens',
      alder,
      ({ lock }) => (lock.opens === 'command' ? (lock.neverOn = ['N']) : 0),
      ['On carrier N it is never opened.'],
    ],
    [
      'what data hang on',
      tarn,
      ({ dataKeys }) => (dataKeys.hangOn = []),
      ['The customer’s data hang on the device and the lock alone.'],
    ],
    [
      'parts kept once',
      fen,
      (family) => (family.keptOnce = ['loader']),
      [
        'Kept once: loader. A cut write of a loader kept once is repaired by a board-level service alone.',
      ],
    ],
    [
      'the sign-in after a reset',
      alder,
      ({ account }) => (account.asksAfterReset = false),
      ['A reset asks for no sign-in.'],
    ],
    [
      'what the screen lock takes with it',
      alder,
      ({ account }) => (account.lockTakes = ['cards']),
      ['Lost once the screen lock is taken off: Payment cards.'],
    ],
    [
      'what a computer needs',
      fen,
      ({ drivers }) => (drivers[1] ? (drivers[1].least = 3) : 0),
      [
        'Over the link in rescue a computer needs the tablet’s rescue driver, version 3 at the least; 3 is the newest.',
      ],
    ],
    [
      'what a start comes to',
      alder,
      ({ start }) => (start[0] ? (start[0].end = { kind: 'loop' }) : 0),
      ['loader torn: a restart loop'],
    ],
    [
      'what the device says then',
      alder,
      ({ start }) => (start[0] ? (start[0].says = 'so') : 0),
      ['loader torn: dead until board-level service; it says “so”'],
    ],
    [
      'the order of builds',
      alder,
      ({ build }) => (build.order = ['week']),
      ['Newer goes by week.'],
    ],
    ['a sector’s bytes, which nobody is told', tarn, (family) => (family.sectorBytes = 4096), []],
  ])('follows %s', (_, family, change, sentences) => {
    expect(moved(family, change)).toEqual(sentences)
  })

  it('names modes as the family does', () => {
    const renamed = structuredClone(alder)
    for (const mode of renamed.modes) if (mode.id === 'loader') mode.name = 'the foot'
    expect(told(renamed).filter((one) => one.includes('the foot')).length).toBeGreaterThan(0)
  })

  it('says where a fact is read, how far that is trusted, and how long it takes', () => {
    const [place] = tarn.facts.model ?? []
    if (place === undefined) throw new Error('no place')
    expect(placeWords(say, tarn, { ...place, trust: 12 })).toBe(
      'the link, asked in the loader, normal mode: weight 12, 5 s',
    )
    expect(placeWords(say, tarn, { ...place, modes: 'any', trust: 2 })).toContain('asked: weight 2')
  })
})
