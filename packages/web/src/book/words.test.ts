import type { EventLine } from '@plain-slate/api'
import { BOOK_ACTS } from '@plain-slate/core'
import { speaker } from '@plain-slate/texts'
import { describe, expect, it } from 'vitest'
import { actWords } from './words.ts'

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

  it('has words for every act there is, and shows an unknown one as it is', () => {
    for (const act of BOOK_ACTS) expect(words(act)).not.toBe(act)
    expect(words('moon.landed')).toBe('moon.landed')
  })
})
