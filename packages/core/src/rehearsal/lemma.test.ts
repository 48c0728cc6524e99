/**
 * What ties routes to plans: what a move is said to make of a state is what its steps, run on the twin, make of the
 * device. Of every route that is found from seeded devices of the three families.
 */
import { expect, it } from 'vitest'
import { settled } from '../device/identity.ts'
import type { HouseRules } from '../match/house.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import { fold } from '../plan/folds.ts'
import { isPack } from '../plan/moves.ts'
import { planOf } from '../plan/plan.ts'
import { MOVED_FACTS } from '../plan/state.ts'
import type { DeviceState } from '../plan/state.ts'
import { routesTo } from '../route/route.ts'
import { identityOf, imagesOf, stateOf, worldBench } from '../testing/worlds.ts'
import { factsOf } from '../twin/told.ts'
import { keepsPromise, rehearse } from './rehearse.ts'

const WORLDS = 240

/** Every fact that a state knows. */
const factsIn = ({ at }: DeviceState) =>
  Object.fromEntries(
    MOVED_FACTS.flatMap((fact) => {
      const value = settled(at.identity, fact)
      return value === undefined || value === '' ? [] : [[fact, value]]
    }),
  )

/** Schools that make a plan another one, each with each. */
const houseOf = (seed: number): HouseRules => ({
  ...USUAL_HOUSE,
  into: seed % 3 === 0 ? 'keys' : 'command',
  restarts: seed % 5 === 0 ? 'every' : 'family',
  writes: seed % 7 === 0 ? 'all' : 'least',
  relock: seed % 4 === 0 ? 'leave' : 'close',
  reset: seed % 11 === 0 ? 'always' : 'needed',
  downgrade: seed % 13 === 0 ? 'first' : 'try',
})

it(`what moves are said to do is what the twin does, from ${WORLDS} devices`, () => {
  const seen = new Set<string>()
  for (let seed = 1; seed <= WORLDS; seed += 1) {
    const bench = worldBench(seed)
    const keepData = seed % 4 < 2
    const open = bench.device.lock === 'open'
    const intent = open && seed % 3 > 0 ? 'relock' : keepData ? 'update' : 'downgrade'
    const start = stateOf(bench, { keepData, intent, house: houseOf(seed) })
    for (const { name, moves, end } of routesTo({ start }).routes) {
      const about = { seed, name, keepData }
      const plan = planOf(start, moves)
      if (!plan.ok) throw new Error(JSON.stringify({ ...about, refusal: plan.refusal }))
      const { end: scene } = rehearse(bench.nature, bench.device, plan.value)
      const { device } = scene
      const after = identityOf(bench, device)
      const known = factsIn(end)
      const told = Object.fromEntries(
        Object.keys(known).map((fact) => [fact, settled(after, fact as 'build')]),
      )
      expect({ ...about, phase: scene.state.phase, told }).toEqual({
        ...about,
        phase: { kind: 'ended' },
        told: known,
      })
      const images = imagesOf(bench, device)
      for (const [part, found] of end.at.evidence)
        expect({ ...about, part, image: images[part] }).toEqual({
          ...about,
          part,
          image: found.kind === 'digest' ? found.sha256 : '',
        })
      expect({ ...about, mode: device.mode, permission: device.permission }).toEqual({
        ...about,
        mode: end.mode,
        permission: end.permission,
      })
      const says = factsOf(bench.nature, device)
      const { fates } = fold(plan.value, start.at)
      expect({ ...about, keeps: keepsPromise(plan.value, fates, device, says) }).toEqual({
        ...about,
        keeps: true,
      })
      for (const move of moves) seen.add(`${bench.family.id} ${isPack(move) ? move.way : move.act}`)
      seen.add(`${bench.family.id} of ${moves.length}`)
    }
  }
  expect([...seen].sort()).toEqual(
    expect.arrayContaining([
      'alder close',
      'alder images',
      'alder open',
      'alder reset',
      'alder of 1',
      'alder of 2',
      'alder of 3',
      'alder storage',
      'fen close',
      'fen images',
      'fen open',
      'fen wait',
      'fen of 1',
      'fen of 2',
      'fen push',
      'tarn card',
      'tarn images',
      'tarn of 1',
      'tarn of 2',
      'tarn of 3',
    ]),
  )
}, 120_000)
