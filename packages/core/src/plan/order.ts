/**
 * Why the steps of a plan stand in the order in which they stand. Reads a plan and its family; gives the reasons that
 * hold of this plan, in the order of its steps. Nothing is said that the steps do not show.
 */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { PlannedPackage } from './lay.ts'
import type { Step } from './step.ts'

export const ORDER_CODES = [
  'merge-first',
  'permit-first',
  'open-first',
  'loader-first',
  'base-first',
  'rescue-first',
  'parts',
  'restarts',
  'erase-last',
  'slot-last',
  'wiped-start',
  'drop-last',
  'lock-last',
  'reset-last',
] as const
export type OrderCode = (typeof ORDER_CODES)[number]
export type OrderReason = {
  readonly code: OrderCode
  readonly facts: Readonly<Record<string, string | number>>
}

type Planned = { readonly steps: readonly Step[]; readonly packages: readonly PlannedPackage[] }

export function orderOf({ steps, packages }: Planned, family: Family): readonly OrderReason[] {
  const first = (kind: Step['kind']) => steps.findIndex((one) => one.kind === kind)
  const last = (kind: Step['kind']) => steps.findLastIndex((one) => one.kind === kind)
  const writes = last('write')
  const plain = (code: OrderCode) => ({ code, facts: {} })
  /** Said where such a step is there and comes after everything of another kind. */
  const after = (code: OrderCode, kind: Step['kind'], others: readonly Step['kind'][]) => {
    const at = first(kind)
    return at >= 0 && others.some((one) => first(one) >= 0) && others.every((one) => last(one) < at)
      ? [plain(code)]
      : []
  }
  const turns = (to: 'open' | 'closed') =>
    steps.findIndex((one) => one.kind === 'lock' && one.to === to)
  const resets = steps.findLastIndex((one) => one.kind === 'by-hand' && one.what === 'reset')
  const starts = first('first-start')
  const installs = first('install')
  const rescues = steps.findIndex(
    ({ kind, ...one }) => kind === 'write' && 'image' in one && one.image.role === 'rescue',
  )
  const begins = Math.max(
    0,
    steps.findIndex(({ kind }) => WRITING.includes(kind)),
  )
  const before = (code: OrderCode, kind: Step['kind']) =>
    first(kind) >= 0 && first(kind) < begins ? [plain(code)] : []
  return [
    ...before('merge-first', 'merge'),
    ...before('permit-first', 'permit'),
    ...(turns('open') >= 0 && turns('open') < begins ? [plain('open-first')] : []),
    ...packages.flatMap((one, index) => comesAfter(one, packages.slice(0, index))),
    ...(rescues >= 0 && rescues < installs ? [plain('rescue-first')] : []),
    ...partsIn(steps, family),
    ...restartsIn(steps, family),
    ...(first('erase') > writes && writes >= 0 ? [plain('erase-last')] : []),
    ...after('slot-last', 'slot', ['write', 'read-back']),
    ...(resets >= 0 && resets < starts && hasInstall(steps) ? [plain('wiped-start')] : []),
    ...after('drop-last', 'drop', ['install', 'prove']),
    ...(turns('closed') > Math.max(writes, starts) && starts >= 0 ? [plain('lock-last')] : []),
    ...(resets > starts && starts >= 0 && turns('closed') < 0 ? [plain('reset-last')] : []),
  ]
}

/** Steps by which anything comes onto the device for good. */
const WRITING: readonly Step['kind'][] = ['write', 'push', 'install', 'copy', 'erase']
const hasInstall = (steps: readonly Step[]): boolean =>
  steps.some(({ kind }) => kind === 'push' || kind === 'install')

/** What a package asks for and one before it brings: a loader, or the build that it goes on. */
function comesAfter(
  { manifest }: PlannedPackage,
  before: readonly PlannedPackage[],
): readonly OrderReason[] {
  const { minLoader, exactBuild } = manifest.requires
  const titleOf = (brings: (one: Manifest) => boolean) =>
    before.find((one) => brings(one.manifest))?.manifest.title
  const loader = titleOf(
    ({ loaderVersion: version }) =>
      version !== undefined && minLoader !== undefined && version >= minLoader,
  )
  const base = titleOf(({ build, kind }) => build === exactBuild && kind !== 'part')
  const { title } = manifest
  return [
    ...(loader === undefined || minLoader === undefined
      ? []
      : [{ code: 'loader-first' as const, facts: { first: loader, title, least: minLoader } }]),
    ...(base === undefined || exactBuild === undefined
      ? []
      : [{ code: 'base-first' as const, facts: { first: base, title, build: exactBuild } }]),
  ]
}

/** Parts as the family orders them, where more than one is written. */
function partsIn(steps: readonly Step[], { writeOrder }: Family): readonly OrderReason[] {
  const written = new Set(steps.flatMap((one) => (one.kind === 'write' ? [one.image.role] : [])))
  const roles = writeOrder.filter((role) => written.has(role))
  return roles.length < 2 ? [] : [{ code: 'parts', facts: { roles: roles.join(', ') } }]
}

/** Parts after which it restarts before the next one. */
function restartsIn(steps: readonly Step[], { restartAfter }: Family): readonly OrderReason[] {
  const after = steps.flatMap((one, index) => {
    const before = steps[index - 1]
    return one.kind === 'restart' && before?.kind === 'read-back' ? [before.image.role] : []
  })
  const asked = restartAfter.filter((role) => after.includes(role))
  return asked.length === 0 ? [] : [{ code: 'restarts', facts: { roles: asked.join(', ') } }]
}
