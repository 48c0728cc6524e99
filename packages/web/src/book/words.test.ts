import type { EventLine } from '@plain-slate/api'
import { BOOK_ACTS } from '@plain-slate/core'
import { speaker } from '@plain-slate/texts'
import { describe, expect, it } from 'vitest'
import { actWords, actorWords } from './words.ts'

const say = speaker('en-GB')
const words = (act: string, facts: EventLine['facts'] = {}) =>
  actWords(
    say,
    { seq: 1, at: '', by: 'Ilse Maro', act, slip: null, facts, texts: {}, hash: '' },
    (id) => (id === 'p1' ? 'Tavi Renn' : id),
  )

describe('an entry in words', () => {
  it('names people, fields and states', () => {
    expect(words('person.added', { person: 'p1', role: 'lead' })).toBe('added Tavi Renn as lead')
    expect(words('slip.changed', { fields: ['due', 'promise'] })).toBe('changed due, must survive')
    expect(words('slip.state', { from: 'open', to: 'stopped' })).toBe('from open to stopped')
    expect(words('text.withdrawn', { texts: 4, second: 'p1' })).toBe(
      'withdrew 4 personal texts, with Tavi Renn',
    )
  })

  it('names the question that was answered, without its blank', () => {
    const said = words('slip.line', { topic: 'ready.permission', answer: 'done' })
    expect(said).toBe('said: Its link permission is on: done')
    expect(words('slip.line', { topic: 'survive.tickets', answer: 'must' })).toContain('tickets')
  })

  it('says how often more a call was refused, and whose second PIN was wrong', () => {
    const route = 'POST /api/people'
    expect(words('act.refused', { route })).toBe(`was refused: ${route}`)
    expect(words('act.refused', { route, times: 399 })).toContain('399 times more')
    expect(words('session.refused')).toBe('was refused at sign-in')
    expect(words('session.refused', { why: 'second-pin', person: 'p1' })).toContain('Tavi Renn')
  })

  it('says who did it: a person, the bench by itself, or somebody not signed in', () => {
    const actor = (act: string, by: string | null = null, facts = {}) =>
      actorWords(say, { act, by, facts })
    expect(actor('run.ended', 'Ilse Maro')).toBe('Ilse Maro')
    expect(actor('run.ended')).toBe('The bench')
    expect(actor('session.refused')).toBe('Somebody')
    expect(actor('archive.shelved', null, { via: 'shell' })).toBe('Somebody at the shell')
  })

  it('has words for every act there is, and shows an unknown one as it is', () => {
    for (const act of BOOK_ACTS) expect(words(act)).not.toBe(act)
    expect(words('moon.landed')).toBe('moon.landed')
  })
})
