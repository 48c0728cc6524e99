/** Topics of what the owner agrees to for the plan that was taken: its fates, and what its packages need their word for. */
import type { ROAD_CONSENTS } from '@plain-slate/core'
import { FATE_CONSENTS, marksBy } from '@plain-slate/core'
import type { JobAt } from './job-at.ts'
import { plannedOf } from './leave.ts'

type RoadConsent = (typeof ROAD_CONSENTS)[number]

/** What the packages of the plan need the owner's word for: a mark that stays, a build that is not stable, an image of their own. */
export function roadConsentsOf({ taken, family }: JobAt): readonly RoadConsent[] {
  if (taken === undefined || family === undefined) return []
  const { packages } = taken.made.plan
  const has = (is: (manifest: (typeof packages)[number]['manifest']) => boolean): boolean =>
    packages.some(({ manifest }) => is(manifest))
  return [
    ...(marksBy(family, 'service').length > 0 && has(({ kind }) => kind === 'service')
      ? ['mark' as const]
      : []),
    ...(has(({ kind, channel }) => kind !== 'service' && channel !== 'stable')
      ? ['preview' as const]
      : []),
    ...(has(({ carried }) => carried !== undefined) ? ['carried' as const] : []),
  ]
}

/** All of them as topics; that nothing is guaranteed is agreed to whatever is planned. */
export const consentsOf = (job: JobAt): readonly string[] => [
  'consent.no-guarantee',
  ...roadConsentsOf(job).map((one) => `consent.${one}`),
  ...FATE_CONSENTS.filter((fate) => plannedOf(job)?.fates.includes(fate)).map(
    (fate) => `fate.${fate}`,
  ),
]
