/** A device that is waited for in a mode, and comes back in another: told on where a lead goes there, three times at most. */
import { describe, expect, it } from 'vitest'
import type { DeviceFacts } from '../wire/facts.ts'
import type { Deed, Outcome } from './perform.ts'
import { TOLD_MOST, perform } from './perform.ts'

const LEADS = [{ from: 'loader', to: 'transfer' }]
const SERIAL = 'COR4NB201406'
const ORDER = { kind: 'connect', mode: 'transfer' } as const
const seenIn = (mode: string, serial = SERIAL): Outcome => ({
  came: 'facts',
  facts: { serial, mode, model: 'CORV-4N' } as DeviceFacts,
})
const TOLD: Outcome = { came: 'answer', answer: { answer: 'mode', mode: 'transfer' } }

/** What is asked, met by what is met, one after the other; and the event at the end. */
function waits(meets: readonly Outcome[], leads = LEADS, told: Outcome = TOLD) {
  const deeds = perform(ORDER, { linked: false, serial: SERIAL, leads })
  const asked: string[] = []
  const answerTo = (deed: Deed): Outcome => {
    asked.push(deed.deed === 'ask' ? deed.request.verb : deed.deed)
    if (deed.deed === 'meet') {
      const met = left.shift() ?? { came: 'left' }
      /* Whoever drives waits out every mode that is not wanted. */
      const welcome = met.came !== 'facts' || [deed.mode, ...deed.or].includes(met.facts.mode)
      return welcome || met.facts.serial !== SERIAL ? met : { came: 'left' }
    }
    return deed.deed === 'ask' ? told : { came: 'done' }
  }
  const left = [...meets]
  let next = deeds.next()
  while (next.done !== true) next = deeds.next(answerTo(next.value))
  return { asked, event: next.value }
}

describe('a device whose cell was out', () => {
  it('is told on from where its keys bring it', () => {
    const { asked, event } = waits([seenIn('loader'), seenIn('transfer')])
    expect(asked).toEqual(['meet', 'restart', 'leave', 'meet'])
    expect(event).toMatchObject({ kind: 'met', facts: { mode: 'transfer' } })
  })

  it('is only waited for where no lead goes, or it is there', () => {
    expect(waits([seenIn('loader')], []).asked).toEqual(['meet'])
    expect(waits([seenIn('rescue')]).asked).toEqual(['meet'])
    expect(waits([seenIn('transfer')]).asked).toEqual(['meet'])
  })

  it('is told three times at most: what always comes back elsewhere is left to people', () => {
    const always = Array.from({ length: 9 }, () => seenIn('loader'))
    const { asked, event } = waits(always)
    expect(asked.filter((one) => one === 'restart')).toHaveLength(TOLD_MOST)
    expect(event).toBeUndefined()
  })

  it('is waited for again where the link is lost as it is told, and stops where it refuses', () => {
    const lost = waits([seenIn('loader'), seenIn('transfer')], LEADS, { came: 'lost' })
    expect(lost.event).toMatchObject({ kind: 'met' })
    const refused = waits([seenIn('loader')], LEADS, { came: 'refused', code: 'wrong-mode' })
    expect(refused.event).toEqual({ kind: 'refused', code: 'wrong-mode' })
  })

  it('is told nothing where it is another', () => {
    const { asked, event } = waits([seenIn('loader', 'COR4NB209999')])
    expect(asked).toEqual(['meet'])
    expect(event).toMatchObject({ kind: 'met', facts: { serial: 'COR4NB209999' } })
  })
})
