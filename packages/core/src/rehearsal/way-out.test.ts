/** A way out that stands where the run that was never cut stood goes on as that did: with it or without, the same. */
import { describe, expect, it } from 'vitest'
import type { Family, Way } from '../family/profile.ts'
import type { Plan } from '../plan/plan.ts'
import { makePlan } from '../route/make-plan.ts'
import { alder, benchOf, caseOf, packageOf } from '../testing/families.ts'
import { device0417, nature, plan0417 } from '../testing/twins.ts'
import { catalogueOf } from '../twin/images.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature } from '../twin/stepped.ts'
import { CUT_KINDS, afterCut, positionsOf } from './cuts.ts'
import { changesUnderWay, flatten } from './rehearse.ts'
import { wayOutFinder } from './way-out.ts'

function phone() {
  const of = (build: string, release: number, patchDate: string) =>
    packageOf(alder, { model: 'CORV-4N', board: 'B2', build, release, patchDate, generation: 2 })
  const bench = benchOf({ family: alder, on: of('20-2632.0-HO', 20, '2026-07-01') })
  const aim = of('19-2620.1-HO', 19, '2026-05-01')
  const at = caseOf(bench, aim, { intent: 'downgrade', keepData: false })
  const made = makePlan({ at, mode: bench.device.mode, permission: true })
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  const catalogue = catalogueOf([...bench.shelf, aim])
  return [{ ...bench.nature, catalogue }, bench.device, made.value] as const
}

/** Where the phone's cell comes out in a piece of the mode that is entered over the link alone. */
function cellOut(change: (family: Family) => Family) {
  const [of, device, plan] = phone()
  const family = change(of.family)
  const { commands } = flatten(plan)
  const { changes, end } = changesUnderWay(of, device, plan, commands)
  const ring = changes.find(({ command }) => command.kind === 'put' && command.mode === 'transfer')
  if (ring === undefined) throw new Error('nothing is written there')
  const left = afterCut(of, ring.scene, ring.command, 1, 'battery')
  const uncut = { nature: { ...of, family }, plan, commands, changes, end }
  return wayOutFinder(uncut)(left, ring.scene.journal)
}
const ways = (change: (way: Way) => Partial<Way>) => (family: Family) => ({
  ...family,
  ways: family.ways.map((way) => ({ ...way, ...change(way) })),
})

describe('a way out', () => {
  it('of a mode that no keys lead to is there as far as the run tells the device on', () => {
    const toRing = ({ from, to }: Way) => to === 'transfer' && from.includes('loader')
    expect(cellOut((family) => family)).toBe('reaches')
    expect(cellOut(ways((way) => (toRing(way) ? { needs: 'permission' } : {})))).toBe('none')
    expect(cellOut(ways((way) => (toRing(way) ? { say: 'by itself, in a while' } : {})))).toBe(
      'reaches',
    )
  })

  it.each<[string, () => readonly [Nature, DeviceModel, Plan]]>([
    ['a handheld', () => [nature(), device0417(), plan0417()]],
    ['a phone that is wiped', phone],
    ['a handheld that would run empty', () => [nature(), device0417({ battery: 9 }), plan0417()]],
  ])(
    'of %s is the same whether it is run to its end or meets the run that was never cut',
    (_, scene) => {
      const [of, device, plan] = scene()
      const { commands } = flatten(plan)
      const { changes, end } = changesUnderWay(of, device, plan, commands)
      const uncut = { nature: of, plan, commands, changes, end }
      const [meeting, running] = [wayOutFinder(uncut), wayOutFinder({ ...uncut, changes: [] })]
      for (const { scene: before, command } of changes)
        for (const bytes of positionsOf(command))
          for (const kind of CUT_KINDS) {
            const left = afterCut(of, before, command, bytes, kind)
            const at = `${before.state.next} ${bytes} ${kind}`
            expect(meeting(left, before.journal), at).toBe(running(left, before.journal))
          }
    },
  )
})
