// @vitest-environment jsdom
/** Aftercare at the counter: days within a week, copies for as long as they are kept, the rest counted. */
import type { CareShown } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { SHOP } from '../slip/testing/sheet.ts'
import { mounted } from '../testing/mounted.ts'
import CareList from './CareList.vue'

const due = (care: CareShown['care'], day: string): CareShown => ({
  number: '0417',
  device: 'Brakken H2K',
  customer: null,
  care,
  due: `${day}T00:00:00.000Z`,
})
async function shown(...cares: readonly CareShown[]) {
  const answer = (path: string) => (path.endsWith('/care') ? cares : SHOP)
  const { shown: page } = await mounted(CareList, {}, { at: '/counter', answer })
  return { page, told: page.findAll('li').map((one) => one.attributes('data-what')) }
}

describe('aftercare at the counter', () => {
  it('tells a day a week before it comes, and counts the others', async () => {
    const { page, told } = await shown(
      due('lock', '2026-10-10'),
      due('updates', '2026-10-22'),
      due('patch', '2026-10-23'),
      due('support', '2027-03-31'),
    )
    expect(told).toEqual(['lock', 'updates'])
    expect(page.text()).toContain('2 more later than in a week')
    expect(page.find('li').text()).toContain('10 October')
  })

  it('tells of a copy for as long as it is kept, and of nothing where nothing is due', async () => {
    expect((await shown(due('ask-owner', '2027-01-01'))).told).toEqual(['ask-owner'])
    expect((await shown()).page.text()).toBe('')
  })
})
