// @vitest-environment jsdom
/** A family's page says which open slips another version decided, and what it would do on devices that nobody has. */
import type { FamilyShown } from '@plain-slate/api'
import { readFileSync } from 'node:fs'
import type { Family } from '@plain-slate/core'
import { familySchema, trialOf } from '@plain-slate/core'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { mounted } from '../testing/mounted.ts'
import FamilyDecided from './FamilyDecided.vue'
import FamilyPage from './FamilyPage.vue'
import FamilyTrial from './FamilyTrial.vue'

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

describe('what a family would do', () => {
  const template = familySchema.parse(parse(readFileSync('docs/family-template.yaml', 'utf8')))
  const shown = async (change: (family: Family) => unknown = () => undefined) => {
    const family = structuredClone(template)
    change(family)
    const trial = trialOf(family) as FamilyShown['trial']
    return (await mounted(FamilyTrial, { family, trial }, {})).shown
  }

  it('is said rule by rule, mode by mode, part by part and chord by chord', async () => {
    const page = (await shown()).text()
    expect(page).toContain('Everything it says can happen.')
    expect(page).toContain('fired on MODEL-1 b1, 32 GB: it was dead.')
    expect(page).toContain('Reached: off → the loader.')
    expect(page).toContain('kernel written in the loader, about 7 s')
    expect(page).toContain('hold lower key, power, until it hums, 3 to 6 s')
    expect(page).toContain('2 lower key')
    const slower = await shown(({ pace }) => (pace.write = { mibPerSecond: [4, 6] }))
    expect(slower.text()).toContain('kernel written in the loader, about 13 s')
    const renamed = await shown((family) => (family.maker = 'Somebody else'))
    expect(renamed.text()).toBe(page)
  })

  it('names first what can never happen', async () => {
    const page = await shown(({ start }) =>
      start.push({ when: [{ set: 'torn' }], end: { kind: 'dead' } }),
    )
    expect(page.find('.sum').text()).toContain('One thing that it says can never happen')
    expect(page.find('ul').text()).toContain('never: rule 2 decides before it each time.')
  })
})

describe('a family’s page', () => {
  it('says how much faster an aged cell drains, where the family does', async () => {
    const template = familySchema.parse(parse(readFileSync('docs/family-template.yaml', 'utf8')))
    const text = async (family: Family) => {
      const about = {
        digest: 'd'.repeat(64),
        own: {},
        least: 5,
        decided: [],
        trial: trialOf(family),
      }
      const { shown } = await mounted(FamilyPage, {}, { answer: { family, ...about } })
      await flushPromises()
      return shown.text()
    }
    const { agedDrains: _, ...silent } = template
    expect(await text({ ...template, agedDrains: 1.5 })).toContain('drains 1.5 times as fast')
    expect(await text({ ...template, agedDrains: 2 })).toContain('drains 2 times as fast')
    expect(await text(silent)).not.toContain('aged cell')
  })
})
