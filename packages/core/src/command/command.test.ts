import { describe, expect, it } from 'vitest'
import { makePlan } from '../route/make-plan.ts'
import { case0417 } from '../testing/cases.ts'
import { commandsOf } from './command.ts'

const commands = (evidence = case0417().evidence, permission = true) => {
  const plan = makePlan({ at: case0417({ evidence }), mode: 'normal', permission })
  if (!plan.ok) throw new Error(plan.refusal.kind)
  return plan.value.steps.flatMap(commandsOf)
}

describe('the commands of a plan', () => {
  it('never write calibration or the customer’s partition, whatever the evidence', () => {
    for (const evidence of [new Map(), case0417().evidence]) {
      const touched = commands(evidence).flatMap((one) =>
        one.kind === 'put' ? [one.partition] : [],
      )
      expect(touched).not.toContain('calib')
      expect(touched).not.toContain('customer')
    }
  })

  it('read back every image after its last piece, before anything restarts', () => {
    const kinds = commands().map((one) => one.kind)
    for (const [index, kind] of kinds.entries())
      if (kind === 'put') expect(['put', 'digest']).toContain(kinds[index + 1])
  })

  it('ask a person where keys are needed, and not where a command does it', () => {
    const asked = (permission: boolean) =>
      commands(case0417().evidence, permission).filter(
        (one) => one.kind === 'person' && one.ask === 'enter',
      )
    expect(asked(true)).toHaveLength(0)
    expect(asked(false)).toHaveLength(2)
  })

  it('of a plan that was made before anything was looked at again meet the device, and no more', () => {
    const meet = { kind: 'meet', number: 1, mode: 'loader', ids: {} } as const
    expect(commandsOf(meet).map(({ kind }) => kind)).toEqual(['meet', 'facts'])
    const looked = { ...meet, look: { table: '512', left: [] } }
    expect(commandsOf(looked).map(({ kind }) => kind)).toEqual(['meet', 'facts', 'table'])
  })
})
