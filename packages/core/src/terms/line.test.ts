/** Lines of a slip: which one stands, which answers a topic takes, what is only said twice. */
import { describe, expect, it } from 'vitest'
import type { Line } from './line.ts'
import { TAKEN_BACK, repeats, standingLines, takes, topicOf } from './line.ts'

describe('a line', () => {
  it('that is newer stands', () => {
    const lines = standingLines([
      { topic: 'owner.account', answer: 'absent', at: 2 },
      { topic: 'owner.account', answer: 'nobody', at: 1 },
    ])
    expect(lines.get('owner.account')?.answer).toBe('absent')
  })

  it('that was taken back is none, and can be said again', () => {
    const line = (answer: string, at: number) => ({ topic: 'ready.cable', answer, at })
    const stands = (...lines: readonly Line[]) => standingLines(lines).get('ready.cable')?.at
    expect(stands(line('done', 1), line(TAKEN_BACK, 2))).toBe(undefined)
    expect(stands(line('done', 1), line(TAKEN_BACK, 2), line('done', 3))).toBe(3)
    const answers = (topic: string) => takes(topicOf(topic) ?? expect.fail(topic), TAKEN_BACK)
    expect(['ready.cable', 'fate.wiped', 'owner.proof'].map(answers)).toEqual([true, false, false])
  })

  it('takes the answers of its topic and no other', () => {
    const account = topicOf('owner.account')
    if (account === undefined) throw new Error('no topic')
    expect([takes(account, 'absent'), takes(account, 'perhaps')]).toEqual([true, false])
    expect(topicOf('owner.secret')).toBe(undefined)
    expect(topicOf('survive.tickets')?.answers).toContain('must')
    expect(topicOf('survive.<b>')).toBe(undefined)
  })
})

describe('a line said twice', () => {
  const line = { topic: 'after.screen', answer: 'works', at: 100, by: 'tavi' }
  const again = (more: Partial<typeof line & { note: string }>, by = 'tavi') =>
    repeats(line, { topic: line.topic, answer: line.answer, note: '', ...more }, by, false)

  it('is recorded once: the same answer by the same person, and no note', () => {
    expect(again({})).toBe(true)
    expect(again({ answer: 'fails' })).toBe(false)
    expect(again({ note: 'a stripe' })).toBe(false)
    expect(again({}, 'pell')).toBe(false)
    expect(repeats(undefined, { ...line, note: '' }, 'tavi', false)).toBe(false)
  })

  it('counts anew where the word that stands has ended', () => {
    const signed = { topic: 'ready.cable', answer: 'done', at: 100, by: 'tavi' }
    const said = { topic: 'ready.cable', answer: 'done', note: '' }
    expect([false, true].map((ended) => repeats(signed, said, 'tavi', ended))).toEqual([
      true,
      false,
    ])
  })

  it('that takes a word back is recorded where there is one', () => {
    const signed = { topic: 'ready.cable', answer: 'done', at: 100, by: 'tavi' }
    const back = { topic: 'ready.cable', answer: TAKEN_BACK, note: '' }
    expect(repeats(signed, back, 'tavi', false)).toBe(false)
    expect(repeats(undefined, back, 'tavi', false)).toBe(true)
  })
})
