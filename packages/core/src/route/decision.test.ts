import { describe, expect, it } from 'vitest'
import { case0417 } from '../testing/cases.ts'
import { readings0417 } from '../testing/devices.ts'
import { digestOf } from '../testing/packages.ts'
import { canonical } from '../canon/canon.ts'
import type { Json } from '../canon/canon.ts'
import { identify } from '../device/identity.ts'
import type { DeviceState } from '../plan/state.ts'
import { tarn } from '../testing/tarn.ts'
import { decideAgain, documentsOf, keepDecision } from './decision.ts'
import { bestMoves } from './make-plan.ts'
import { planOf } from '../plan/plan.ts'

function kept() {
  const readings = readings0417()
  const { shelved, way: _, ...at } = case0417({ identity: identify(tarn, readings) })
  const state: DeviceState = { at, mode: 'normal', permission: true }
  const made = planOf(state, bestMoves(state, shelved))
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  return keepDecision({ state, readings, changed: {}, plan: made.value }, digestOf)
}
/** The same with one thing in its text changed, under the digest it then has. */
function otherwise(change: (text: string) => string) {
  const { decision, documents } = kept()
  const text = change(documents.get(decision) ?? '')
  const other = digestOf(text)
  return decideAgain(other, new Map([...documents, [other, text]]), digestOf)
}
const inText = (from: string, to: string) => (text: string) => {
  if (!text.includes(from)) throw new Error(`no ${from} in it`)
  return text.replaceAll(from, to)
}

describe('a decision that was kept', () => {
  it('is made again byte by byte, and says what of', () => {
    const { decision, documents } = kept()
    const again = decideAgain(decision, documents, digestOf)
    expect(again).toMatchObject({
      ok: true,
      value: { same: true, family: { id: 'tarn', version: tarn.version } },
    })
    expect(again.ok && again.value.was === again.value.now).toBe(true)
    expect(again.ok && again.value.readings).toBe(readings0417().length)
  })

  it('is its own text: canonical, under its digest, and so is all that it names', () => {
    const { decision, documents } = kept()
    for (const [digest, text] of documents) {
      expect(digestOf(text)).toBe(digest)
      expect(canonical(JSON.parse(text) as Json)).toBe(text)
    }
    const named = documentsOf(documents.get(decision) ?? '')
    expect([...documents.keys()].filter((one) => one !== decision).sort()).toEqual(
      [...named].sort(),
    )
  })

  it('is another one of other evidence, readings or house rules, and the same of what moves nothing', () => {
    const same = (change: (text: string) => string) => {
      const again = otherwise(change)
      return again.ok && again.value.same
    }
    expect(same((text) => text)).toBe(true)
    expect(same(inText('"writes":"least"', '"writes":"all"'))).toBe(false)
    expect(same(inText('TRN4490077F31', 'TRN4490077F32'))).toBe(false)
    expect(same(inText('"evidence":[[', '"evidence":[],"was":[['))).toBe(false)
    expect(same(inText('"silence":"limit"', '"silence":"wait"'))).toBe(true)
  })

  it('names the document that is missing', () => {
    const { decision, documents } = kept()
    const [family] = documentsOf(documents.get(decision) ?? '')
    const less = new Map([...documents].filter(([digest]) => digest !== family))
    expect(decideAgain(decision, less, digestOf)).toEqual({
      ok: false,
      refusal: { kind: 'missing', digest: family },
    })
    expect(decideAgain(decision, new Map(), digestOf).ok).toBe(false)
  })
})
