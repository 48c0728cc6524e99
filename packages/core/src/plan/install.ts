/**
 * The road of a package that the device installs by itself: brought to the store it reads (pushed, copied and
 * proven there), started over the link or by hands, answered where it asks for a hand. Reads a case and a road so
 * far; gives the road on to where the device waits for its first start.
 */
import type { InstallRule, StoreRule } from '../family/rules.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { isKind, modeProfile } from '../family/modes.ts'
import { menuSentence } from '../modes/menu.ts'
import { archiveOf } from '../firmware/manifest.ts'
import type { Case } from '../match/rule.ts'
import type { Mode, Slot, Store } from '../terms/device.ts'
import { STORES } from '../terms/device.ts'
import { byHand } from './ends.ts'
import type { Road } from './road.ts'
import type { Written } from './road.ts'
import { adding, toMode, written } from './road.ts'
import type { InStore, StepBody } from './step.ts'

/** How a package gets on a device: image by image, or installed by the device from a store. */
export const PLAN_WAYS = ['images', ...STORES] as const
export type PlanWay = (typeof PLAN_WAYS)[number]

/** Kinds of package that go on image by image. */
const BY_IMAGES: readonly Manifest['kind'][] = ['full', 'part', 'service']
export const isByImages = ({ kind, requires }: Manifest): boolean =>
  BY_IMAGES.includes(kind) && requires.card !== true

/** A package that the device could install, by which rule of its family, from which store. */
export type Install = {
  readonly rule: InstallRule
  readonly store: StoreRule
  readonly pack: string
  readonly name: string
  readonly archive: { readonly sha256: string; readonly bytes: number }
  readonly scale: number
  readonly slowly: boolean
}

/** Every way in which the family's devices install this package; none for one that lies in several volumes. */
export function installsOf({ family, shelved }: Case): readonly Install[] {
  const { key: pack, manifest } = shelved
  const { kind, scale, requires } = manifest
  const archive = archiveOf(manifest)
  if (archive === undefined) return []
  return family.installs.flatMap((rule) => {
    const store = family.stores.find(({ id }) => id === rule.from)
    if (store === undefined || !rule.kinds.some((one) => one === kind)) return []
    if (requires.card === true && rule.from !== 'card') return []
    const slowly = rule.slowly.some((one) => one === kind)
    return [{ rule, store, pack, name: nameFor(pack, rule), archive, scale, slowly }]
  })
}

/** A plain name that ends as the device wants it, and that sorts before others: hands name none. */
const nameFor = (pack: string, { ends }: InstallRule): string =>
  `0-${pack.replace(/[^A-Za-z0-9.-]/g, '-')}${ends}`

/** Images that must stand there before the device can install, and the slot that it writes. */
export type Around = {
  readonly before: readonly Written[]
  readonly slot: Slot | undefined
  /** The loader that is on it once they are written, as far as anybody knows: menus go by it. */
  readonly loader: number | undefined
  /** Its system starts: what is copied while that runs can be copied. */
  readonly starts: boolean
}

/** The package brought and installed. Undefined: no way leads to a mode that it needs. */
export function installed(road: Road, install: Install, around: Around): Road | undefined {
  return install.rule.hands === undefined
    ? pushed(road, install, around)
    : copied(road, install, around)
}

/** On to the mode that installs, with what must be raised written on the way. */
function raisedTo(road: Road, mode: Mode, before: readonly Written[]): Road | undefined {
  const raised = before.reduce<Road | undefined>((so, one) => so && written(so, one), road)
  return raised && toMode(raised, mode)
}

function pushed(road: Road, install: Install, { before, slot }: Around): Road | undefined {
  const { rule, slowly } = install
  const there = raisedTo(road, rule.mode, before)
  if (there === undefined) return undefined
  const push: StepBody = { kind: 'push', slowly, slot, ...inStore(install, rule.mode) }
  return asked(adding(there, push), install, slot)
}

/** Brought first: what is raised may leave no system behind to which a file could be brought. */
function copied(road: Road, install: Install, around: Around): Road | undefined {
  const { before, slot, loader, starts } = around
  const { rule, store, slowly } = install
  const [mode] = store.modes
  const { hands } = rule
  const at = mode === undefined ? undefined : toMode(road, mode)
  if (at === undefined || mode === undefined || hands === undefined) return undefined
  if (!starts && mode !== road.here && isKind(road.family, mode, 'system')) return undefined
  const place = inStore(install, mode)
  const brought = adding(at, { kind: 'copy', ...place }, { kind: 'prove-copy', ...place })
  const there = raisedTo(brought, rule.mode, before)
  if (there === undefined) return undefined
  const own = inStore(install, rule.mode)
  const menu = modeProfile(road.family, rule.mode)?.menu
  const say = menu === undefined ? '' : menuSentence(menu, hands.line, loader)
  const { seconds } = hands
  return asked(
    adding(there, { kind: 'install', slowly, slot, say, seconds, ...own }),
    install,
    slot,
  )
}

const inStore = ({ rule, pack, name, archive, scale }: Install, mode: string): InStore => ({
  mode,
  store: rule.from,
  name,
  pack,
  archive: archive.sha256,
  bytes: archive.bytes,
  scale,
})

/** What it asks hands for at its end; another slot takes the link permission where the family says so. */
function asked(road: Road, { rule: { confirm, mode } }: Install, slot: Slot | undefined): Road {
  const answered =
    confirm === undefined ? road : adding(road, byHand(road, 'confirm', confirm.say, mode))
  const clears = slot !== undefined && road.family.permission.clearedBy.includes('slot')
  return { ...answered, permission: answered.permission && !clears }
}

/** The copy taken away after its start was proven; a wipe has taken one that lay among the customer's things. */
export function tidied(road: Road, { store, name }: Install, wiped: boolean): Road {
  const { id, partition, modes } = store
  const gone = wiped && partition !== undefined
  if (id === STORE_OF_MEMORY || gone || !modes.includes(road.here)) return road
  return adding(road, { kind: 'drop', mode: road.here, store: id, name })
}

/** What is pushed lies in memory: nothing of it stays. */
const STORE_OF_MEMORY: Store = 'push'
