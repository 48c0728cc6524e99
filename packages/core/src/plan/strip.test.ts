import { describe, expect, it } from 'vitest'
import { effectsOf } from './folds.ts'
import { paceOf } from '../pace/pace.ts'
import { tarn } from '../testing/tarn.ts'
import { plan0417 } from '../testing/twins.ts'
import { coursesOf, stripOf } from './strip.ts'

const plan = plan0417()
const effects = effectsOf(plan, tarn)
const steps = plan.steps.map((step, index) => {
  const effect = effects[index]
  if (effect === undefined) throw new Error('no effect')
  const { low, high } = paceOf(tarn, effect)
  const leaves =
    step.kind === 'write' ? (step.image.role === 'loader' ? 'dead' : 'loop') : 'unaffected'
  return { number: step.number, seconds: { low, high }, leaves, effect }
})

describe('the strip', () => {
  it('joins steps whose cuts leave the same, and loses no second', () => {
    const { stretches } = stripOf(steps)
    expect(stretches.filter(({ leaves }) => leaves === 'dead')).toHaveLength(1)
    const total = stretches.reduce((sum, { seconds }) => sum + seconds.high, 0)
    expect(total).toBeCloseTo(steps.reduce((sum, { seconds }) => sum + seconds.high, 0))
    expect(stretches[0]?.from).toBe(1)
    expect(stretches.at(-1)?.to).toBe(plan.steps.length)
  })

  it('has lanes for hands, cable and restarts, from the effects alone', () => {
    const lanes = stripOf(steps)
    const ready = plan.steps.filter(({ kind }) => kind === 'ready').map(({ number }) => number)
    expect(lanes.hands).toEqual(expect.arrayContaining(ready))
    expect(lanes.restarts).toHaveLength(effects.filter(({ restarts }) => restarts).length)
    expect(lanes.cable.every((number) => !ready.includes(number))).toBe(true)
  })
})

describe('the wall', () => {
  const partitions = tarn.partitions.map(({ name }) => name)
  const courses = (more?: Parameters<typeof plan0417>[0]) =>
    coursesOf(more === undefined ? plan : plan0417(more), tarn, partitions, () => ({
      low: 1,
      high: 2,
    }))
  const fates = (index: number, more?: Parameters<typeof plan0417>[0]) =>
    Object.fromEntries(
      courses(more)[index]?.bricks.map(({ partition, fate }) => [partition, fate]) ?? [],
    )

  it('has one course a package, partitions in device order', () => {
    expect(courses().map(({ title }) => title)).toEqual(['loader 7', 'H2.104.r4'])
    expect(courses()[0]?.bricks.map(({ partition }) => partition)).toEqual(partitions)
  })

  it('tells written, same, absent, the customer’s and what is never touched apart', () => {
    expect(fates(0)).toMatchObject({ loader: 'written', main: 'absent', calib: 'untouched' })
    expect(fates(1)).toMatchObject({
      main: 'written',
      rescue: 'left',
      loader: 'absent',
      customer: 'customer',
    })
  })

  it('follows the evidence: unread, nothing is left alone', () => {
    expect(fates(1, { evidence: new Map() }).rescue).toBe('written')
  })
})
