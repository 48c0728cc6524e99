/** Ready: what is seen of port, device, packages and cable now, and what people signed for this plan. */
import type { Ready } from '@plain-slate/api'
import { checksOf, confirmationsOf, msOf } from '@plain-slate/core'
import type { House } from '../house.ts'
import { listCables } from '../tables/bench.ts'
import { anyAgent } from '../tables/devices.ts'
import { listRuns } from '../tables/runs.ts'
import type { JobAt } from './load.ts'
import { routePackages } from './packages.ts'

export async function readyOf(house: House, job: JobAt, stale: boolean): Promise<Ready> {
  const { taken, sight, family } = job
  const [agent, cables, runs] = await Promise.all([
    anyAgent(house.db),
    listCables(house.db),
    listRuns(house.db, 'at-ports'),
  ])
  const shown = taken?.shown
  const plan =
    taken === undefined || shown === undefined
      ? undefined
      : { takenAt: msOf(taken.at), stale, mode: taken.mode, needs: shown.needs }
  const cable = cables.find(({ port }) => port !== null && port === sight?.port)
  const facts = {
    plan,
    agent,
    port: sight?.port,
    mode: sight?.facts.mode,
    percent: sight?.facts.batteryPercent,
    busy: runs.some(({ port }) => port === sight?.port),
    cable,
    unproven: routePackages(job)
      .filter(({ proof }) => proof.state !== 'proven')
      .map(({ manifest }) => manifest.title),
    wiped: shown?.fates.some(({ fate }) => fate === 'wiped') ?? false,
    keepData: job.keepData,
    idleDrain: family?.drainPerMinute['loader-idle'] ?? 0,
    lines: job.lines,
  }
  const newest = new Map(job.all.map((line) => [line.topic, line]))
  return {
    checks: checksOf(facts).map((one) => ({ ...one, facts: { ...one.facts } })),
    signed: confirmationsOf(facts).map(({ topic, signed }) => {
      const line = signed ? newest.get(topic) : undefined
      return { topic, signed, by: line?.by ?? null, at: line?.at ?? null }
    }),
  }
}
