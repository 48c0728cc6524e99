/** Nothing but a family names a mode or a partition: under other names the same job comes to the same end. */
import { describe, expect, it } from 'vitest'
import { familyTable } from '../family/layout.ts'
import { makePlan } from '../route/make-plan.ts'
import { DISK_BYTES, case0417, evidence0417 } from '../testing/cases.ts'
import { SCALE, shelf } from '../testing/packages.ts'
import { renamedFamily, renamedManifest, renamedMode, renamedPart } from '../testing/renamed.ts'
import { tarn } from '../testing/tarn.ts'
import { device0417, nature, plan0417 } from '../testing/twins.ts'
import { rehearse, rehearseCuts } from './rehearse.ts'

const family = renamedFamily(tarn)
const plan = plan0417()

/** The lead job with every name changed: its case, its device, its plan. */
function renamed() {
  const at = case0417()
  const named = shelf.map((one) => ({ ...one, manifest: renamedManifest(one.manifest) }))
  const table = familyTable(family, { storageGb: 32 }, SCALE, DISK_BYTES)
  const evidence = new Map([...evidence0417].map(([part, one]) => [renamedPart(part), one]))
  const shelved = { ...at.shelved, manifest: renamedManifest(at.shelved.manifest) }
  const made = makePlan({
    at: { ...at, family, shelved, shelf: named, table, evidence },
    mode: renamedMode(tarn, 'normal'),
    permission: true,
  })
  if (!made.ok) throw new Error(made.refusal.kind)
  const before = device0417()
  const parts = Object.entries(before.parts).map(([name, part]) => [renamedPart(name), part])
  const device = {
    ...before,
    mode: renamedMode(tarn, before.mode),
    parts: Object.fromEntries(parts) as typeof before.parts,
  }
  return { plan: made.value, device, nature: nature({ family }) }
}

describe('a family with every mode and partition named otherwise', () => {
  const other = renamed()

  it('has the same plan, step by step', () => {
    expect(other.plan.steps.map(({ kind }) => kind)).toEqual(plan.steps.map(({ kind }) => kind))
    expect(JSON.stringify(other.plan.steps)).not.toMatch(
      /"(mode|to|from|partition)":"(normal|loader|off)"/,
    )
  })

  it('ends in the same state, by the same journal, in the same time', () => {
    const end = rehearse(nature(), device0417(), plan)
    const ended = rehearse(other.nature, other.device, other.plan)
    const times = (journal: typeof end.end.journal) =>
      journal.map(({ kind, command, at }) => [kind, command, at])
    expect(times(ended.end.journal)).toEqual(times(end.end.journal))
    expect(ended.end.device).toMatchObject({
      outcome: end.end.device.outcome,
      data: end.end.device.data,
      floors: end.end.device.floors,
      mode: renamedMode(tarn, end.end.device.mode),
    })
    for (const [name, { map }] of Object.entries(end.end.device.parts))
      expect(ended.end.device.parts[renamedPart(name)]?.map, name).toEqual(map)
  })

  it('is left the same by every cut', () => {
    const classes = (all: ReturnType<typeof rehearseCuts>) => all.map(({ leaves }) => leaves)
    expect(classes(rehearseCuts(other.nature, other.device, other.plan))).toEqual(
      classes(rehearseCuts(nature(), device0417(), plan)),
    )
  })
})
