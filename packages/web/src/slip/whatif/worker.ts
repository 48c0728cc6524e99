/** The worker of What if: the same core as the server's, on a state that is supposed. */
import type { DeviceState, Route } from '@plain-slate/core'
import {
  aimOf,
  aroundAim,
  fateOfCost,
  obstaclesOf,
  routesTo,
  suppose,
  unpackState,
} from '@plain-slate/core'
import type { Answered, Asked, Failed, Told } from './asked.ts'

let state: DeviceState | undefined

self.addEventListener('message', ({ data }: MessageEvent<Asked>) => {
  const { id } = data
  try {
    if (data.state !== undefined) state = unpackState(data.state)
    if (state !== undefined) self.postMessage(answer(id, state, suppose(state, data.supposed)))
  } catch (error) {
    const failed: Failed = { id, failed: error instanceof Error ? error.message : String(error) }
    self.postMessage(failed)
  }
})

function answer(id: number, asIs: DeviceState, supposed: DeviceState): Answered {
  const now = routesTo({ start: asIs }).routes
  const then = routesTo({ start: supposed }).routes
  const reaches = then.some(({ misses }) => misses.length === 0)
  const blocked = reaches ? [] : obstaclesOf(supposed, then)
  return {
    id,
    asIs: now.map((one) => told(asIs, one)),
    supposed: then.map((one) => told(supposed, one)),
    blocked: blocked.flatMap(({ obstacles }) =>
      obstacles.map(({ title, finding: { code, facts } }) => ({ title, code, facts })),
    ),
  }
}

function told({ at }: DeviceState, route: Route): Told {
  const { name, moves, shelved, verdict, cost, misses } = route
  const titleOf = (pack: string) => at.shelf.find(({ key }) => key === pack)?.manifest.title
  return {
    name,
    title: shelved.manifest.title,
    ...aroundAim(moves, titleOf),
    way: aimOf(moves)?.way ?? 'images',
    verdict,
    minutes: cost.minutes,
    data: fateOfCost(at, cost),
    misses,
  }
}
