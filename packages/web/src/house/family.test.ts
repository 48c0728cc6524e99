// @vitest-environment jsdom
/** A family's page says which open slips another version decided, and what this one changes of each. */
import type { FamilyShown } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { mounted } from '../testing/mounted.ts'
import FamilyDecided from './FamilyDecided.vue'

describe('decided by another version', () => {
  const says = async (...decided: FamilyShown['decided']) =>
    (await mounted(FamilyDecided, { decided }, {})).shown.text()
  it('says of each whether it holds by this one, and else by what it is another plan', async () => {
    const one = { number: '0421', version: 'tarn 1' }
    expect(await says({ ...one, changes: null })).toContain(
      '0421 decided by tarn 1; its plan is the same by this one',
    )
    const changes = [{ what: 'family', from: 'tarn 1', to: 'tarn 2' }]
    expect(await says({ ...one, changes })).toContain(
      'decided by tarn 1; by this one it is another plan: version of its family',
    )
    expect(await says()).toBe('')
  })
})
