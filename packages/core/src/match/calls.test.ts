import { expect, it } from 'vitest'
import { ofExport, said } from '../testing/judged.ts'
import { judge } from './judge.ts'
import type { Case } from './rule.ts'

const found = (at: Case) => judge(at).findings.find(({ rule }) => rule === 'promise.calls')
const rows = (uncertifiedIn: readonly string[]): Case['family'] => ({
  ...ofExport.family,
  variants: ofExport.family.variants.map((row) =>
    row.region === 'EX' ? { ...row, uncertifiedIn: [...uncertifiedIn] } : row,
  ),
})
const house = (more: Partial<Case['house']>): Case => ({
  ...ofExport,
  house: { ...ofExport.house, ...more },
})

it('tells of emergency calls by the row it is of and where it is used, and of no other', () => {
  expect(found(ofExport)).toMatchObject({
    verdict: 'fits-if',
    facts: { row: 'EX/O', region: 'HI' },
  })
  expect(found(said({ 'use.region': 'ML' }, ofExport))?.facts['region']).toBe('ML')
  expect(found(said({ 'use.region': 'EX' }, ofExport))).toBeUndefined()
  expect(found({ ...ofExport, family: rows(['QQ']) })).toBeUndefined()
  expect(found(house({ lawfulRegions: ['QQ'] }))).toBeUndefined()
  expect(found(house({ batteryMargin: 7 }))).toEqual(found(ofExport))
})
