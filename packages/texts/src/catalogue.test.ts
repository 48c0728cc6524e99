import {
  BOOK_ACTS,
  CUT_CLASSES,
  INTENTS,
  LEDGE_WORDS,
  REFUSALS,
  ROLES,
  RULES,
  codesOf,
  SLIP_STATES,
  STAGES,
  VERDICTS,
  startOutcomeSchema,
} from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { en } from './en/index.ts'
import { PSEUDO_CLOSE, PSEUDO_OPEN } from './pseudo.ts'
import { isCode, sayAny, speaker } from './say.ts'

const say = speaker('en-GB')

describe('the catalogue', () => {
  it('counts in words', () => {
    expect(say('slips.title.all', { total: 0 })).toBe('No slip yet')
    expect(say('slips.title.all', { total: 1 })).toBe('One slip')
    expect(say('slips.title.all', { total: 36 })).toBe('36 slips')
  })

  it('has a word for every closed term', () => {
    const codes = [
      ...INTENTS.map((intent) => `intent.${intent}`),
      ...STAGES.flatMap((stage) => [`stage.${stage}`, `stage.${stage}.will`]),
      ...SLIP_STATES.map((state) => `state.${state}`),
      ...ROLES.map((role) => `role.${role}`),
      ...BOOK_ACTS.map((act) => `act.${act}`),
      ...LEDGE_WORDS.map((word) => `port.${word}`),
      ...VERDICTS.map((verdict) => `verdict.${verdict}`),
      ...CUT_CLASSES.map((left) => `cut.${left}`),
      ...REFUSALS.map((refusal) => `refused.${refusal}`),
      ...startOutcomeSchema.options.map((outcome) => `outcome.${outcome}`),
      ...RULES.flatMap(codesOf),
    ]
    expect(codes.filter((code) => !isCode(code))).toEqual([])
  })

  it('compiles every sentence, given its parameters', () => {
    const anything = new Proxy({}, { get: () => 1, has: () => true })
    for (const code of Object.keys(en))
      if (isCode(code)) expect(sayAny('en-GB', code, anything)).not.toBe('')
  })

  it('nests no parameter in a plural arm, or the types would lie', () => {
    const nested = Object.values(en).filter((text) => /\{[^{}]*\{[^{}]*\{/.test(text))
    expect(nested).toEqual([])
  })
})

describe('the language nobody speaks', () => {
  it('dresses every sentence and keeps parameters working', () => {
    const pseudo = speaker('pseudo')
    const said = pseudo('slips.title.all', { total: 36 })
    expect(said.startsWith(PSEUDO_OPEN) && said.endsWith(PSEUDO_CLOSE)).toBe(true)
    expect(said).toContain('36')
    expect(pseudo('find.label')).not.toBe(say('find.label'))
  })
})
