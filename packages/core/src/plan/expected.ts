/**
 * What a device must say of itself at the end of a plan: its build, its loader, floors where they rise, what
 * a known fault of its board takes from it. Reads a case and the packages of the plan; gives the promise.
 */
import { settled } from '../device/identity.ts'
import { hasSlottedLoader, loaderIn } from '../difference/loader-stays.ts'
import { isCarried } from '../firmware/carried.ts'
import { faultsUnder } from '../family/faults.ts'
import type { Rise } from '../family/rules.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { generationFor } from '../firmware/manifest.ts'
import type { Case } from '../match/rule.ts'
import type { PartRole, Slot } from '../terms/device.ts'
import { floorFact } from '../wire/facts.ts'
import type { Expected } from './step.ts'

export type Aim = {
  readonly at: Case
  readonly manifests: readonly Manifest[]
  readonly slot: Slot | undefined
}

/** The promise of a start at whose end these moments have been. */
export function expectedOf(aim: Aim, moments: readonly Rise[]): Expected {
  const { at, slot } = aim
  const { build, release } = brings(at)
  const loaderVersion = loaderAfter(aim)
  return {
    build,
    release,
    ...(loaderVersion === undefined ? {} : { loaderVersion }),
    ...floorsAfter(aim, moments),
    ...(slot === undefined ? {} : { slot }),
    ...limitsOf(aim),
  }
}

/**
 * The loader that starts it then: the highest of what was there and what came. Where each slot has its own, the other
 * slot's is the one that came with its system, or, of a step from one build to the next, the one that was taken along;
 * undefined where neither is so.
 */
function loaderAfter({ at, manifests, slot }: Aim): number | undefined {
  const here = settled(at.identity, 'loaderVersion')
  const moves = slot !== undefined && slot !== settled(at.identity, 'slot')
  const main = manifests.at(-1)
  if (moves && main !== undefined && hasSlottedLoader(at.family)) {
    if (main.images.some(({ role }) => role === 'loader')) return main.loaderVersion
    if (main.kind !== 'incremental') return undefined
  }
  const brought = manifests.flatMap((one) => loaderIn(one) ?? [])
  const loaders = here === undefined ? brought : [Number(here), ...brought]
  return loaders.length === 0 ? undefined : Math.max(...loaders)
}

/** A part leaves the build that is there as it was, unless it makes another variant of it. */
function brings({ identity, shelved: { manifest } }: Case): Pick<Expected, 'build' | 'release'> {
  const { kind, images, build, release } = manifest
  const stays = kind === 'part' && images.every(({ role }) => role !== 'variant')
  if (!stays) return { build, release }
  const here = settled(identity, 'release')
  return { build: String(settled(identity, 'build') ?? ''), release: Number(here ?? 0) }
}

const FLOORS: readonly (PartRole | 'all')[] = ['all', 'loader', 'modem', 'main']

/** Each floor that the family keeps and that was read: raised by what stands there then, or as it was. */
function floorsAfter({ at, manifests }: Aim, moments: readonly Rise[]): Partial<Expected> {
  const { floors } = at.family
  const known = FLOORS.flatMap((role): readonly (readonly [string, number])[] => {
    const fact = floorFact(role)
    const here = settled(at.identity, fact)
    if (here === undefined || (floors.kept === 'one') !== (role === 'all')) return []
    const rises = floors.rules.some(
      (rule) =>
        (role === 'all' || rule.roles === 'any' || rule.roles.includes(role)) &&
        rule.rises.some((moment) => moments.includes(moment)),
    )
    const images = manifests.flatMap((manifest) =>
      manifest.images
        .filter((image) => role === 'all' || image.role === role)
        .map((image) => generationFor(manifest, image.role)),
    )
    return [[fact, Math.max(Number(here), ...(rises ? images : []))]]
  })
  return Object.fromEntries(known)
}

/** Known faults of this board under the package's own images; of what its owner carries over none is foreseen. */
function limitsOf({ at }: Aim): Pick<Expected, 'limits'> {
  const { manifest } = at.shelved
  const [model, board] = [settled(at.identity, 'model'), settled(at.identity, 'board')]
  const about = { model: String(model ?? ''), board: String(board ?? '') }
  const buildsOn = (role: PartRole) =>
    manifest.images.some((image) => image.role === role && !isCarried(manifest, image.sha256))
      ? [manifest.build]
      : []
  const limits = faultsUnder(at.family, about, buildsOn).flatMap(({ limit }) => limit ?? [])
  return limits.length === 0 ? {} : { limits: [...new Set(limits)] }
}
