/**
 * What becomes of the customer's data: wiped when the package erases its partition, there but unreadable
 * when its keys hang on something that goes back, kept otherwise. Data of which nothing shows by what they were
 * last used are taken to open under a build that is not older than any of its kind; of a device that does not start
 * they are erased where they need not survive: nothing else makes sure that it starts then.
 */
import type { FactValue } from '../../device/identity.ts'
import { settled } from '../../device/identity.ts'
import { wipesByForm } from '../../firmware/forms.ts'
import { modeTaking } from '../../family/modes.ts'
import type { Family } from '../../family/profile.ts'
import { isTrackBack } from '../../family/profile.ts'
import type { Fact } from '../../terms/device.ts'
import { adoptionOf, bringsVariant } from '../adoption.ts'
import type { Case } from '../rule.ts'
import { rule } from '../rule.ts'
import type { Manifest } from '../../firmware/manifest.ts'
import { newestOf } from '../shelf-index.ts'
import { cannotStart } from '../starts.ts'
import { TARGET_FACTS, targetsText } from '../targets.ts'

export const FATES = ['kept', 'unreadable', 'wiped', 'unpromised'] as const
export type Fate = (typeof FATES)[number]
/** From mild to grave: nobody's promise is worse than what was never read, and a wipe than both. */
const GRAVEST: readonly Fate[] = ['wiped', 'unpromised', 'unreadable', 'kept']

/** The worst of what becomes of several things; kept where there is none. */
export const worstFate = (fates: readonly Fate[]): Fate =>
  GRAVEST.find((fate) => fates.includes(fate)) ?? 'kept'

/** Why, from the mildest to the worst: the first is nothing that touches it. */
export const FATE_WHYS = [
  'untouched',
  'release',
  'patchDate',
  'reset',
  'back',
  'unseen',
  'lock',
  'opened',
  'adopted',
  'house',
  'erased',
  'written',
  'placeless',
] as const
export type FateWhy = (typeof FATE_WHYS)[number]
/** What each of them comes to. */
export const FATE_OF: Readonly<Record<FateWhy, Fate>> = {
  untouched: 'kept',
  release: 'unreadable',
  patchDate: 'unreadable',
  /** It could not be opened after, and need not survive: the plan erases it. */
  back: 'wiped',
  /** By what they were last used nobody can read, as it does not start; they need not survive: the plan erases them. */
  unseen: 'wiped',
  /** Another variant is taken up from new. */
  adopted: 'wiped',
  /** They need not survive, and this house begins from new. */
  house: 'wiped',
  /** Closing the boot lock takes it, opening it does, a reset made by hand does. */
  lock: 'wiped',
  opened: 'wiped',
  reset: 'wiped',
  erased: 'wiped',
  written: 'wiped',
  placeless: 'unpromised',
}

/** The facts on which data may hang, and those that decide besides what becomes of them. */
const HANG = ['release', 'patchDate', 'track'] as const
const BESIDES = ['region', 'carrier', ...TARGET_FACTS] as const
type Hanging = Readonly<Partial<Record<(typeof HANG)[number], FactValue>>>
type DataValues = Hanging & Readonly<Partial<Record<(typeof BESIDES)[number], FactValue>>>
type About = Pick<
  Case,
  'family' | 'shelved' | 'shelf' | 'lines' | 'intent' | 'keepData' | 'house' | 'data'
>

export const dataFate = rule({
  id: 'promise.data',
  overruled: 'nobody',
  sees: [...HANG, ...BESIDES],
  alike: (manifest) => {
    const { kind, release, patchDate, track, effects } = manifest
    const own = [
      kind,
      release,
      patchDate,
      track,
      bringsVariant(manifest),
      effects.erases,
      wipesByForm(manifest),
    ]
    return `${own.join()} ${targetsText(manifest)}`
  },
  reads: ['intent', 'keepData', 'shelf', 'house', 'data', 'lines', 'identity'],
  says: {
    kept: ['fits', 'by', 'here', 'brings'],
    told: ['fits-if', 'by', 'here', 'brings'],
    same: ['fits'],
    unseen: ['fits-if', 'release'],
    unread: ['cannot-tell', 'facts', 'newer'],
    cleared: ['fits-if', 'facts'],
    unreadable: ['fits-if', 'by', 'here', 'brings'],
    lost: ['does-not-fit', 'by', 'here', 'brings'],
    wiped: ['fits-if', 'why'],
    erased: ['does-not-fit', 'why'],
    gone: ['fits'],
  },
  check: (values, at) => {
    if (at.data !== undefined) return { say: 'gone', facts: {} }
    const { release } = at.shelved.manifest
    const missing = unreadOf(values, at)
    const why = fateWhy(values, at)
    const fate = FATE_OF[why]
    const facts = hangingBy(values, at)
    const consent = { kind: 'consent' } as const
    /* A promise is not overruled: its owner may wish otherwise, and that is said at Intake. */
    const wish = { kind: 'ask', topic: 'survive' } as const
    if (why === 'unseen')
      return { say: 'cleared', facts: { facts: missing.join(', ') }, remedy: consent }
    if (fate === 'wiped')
      return at.keepData
        ? { say: 'erased', facts: { why }, remedy: wish }
        : { say: 'wiped', facts: { why }, remedy: consent }
    if (missing.length > 0) {
      const remedy = { kind: 'read', facts: missing } as const
      const newer = newerThan(at)
      return newer === undefined
        ? { say: 'unseen', facts: { release }, remedy }
        : { say: 'unread', facts: { facts: missing.join(', '), newer: newer.title }, remedy }
    }
    const moves = hangsOn(at, facts.by) && facts.here !== facts.brings
    if (fate === 'kept') {
      if (!moves) return { say: 'same', facts: {} }
      /* By a weak word alone nothing is promised: it is so if that is so. */
      const isTold = at.identity[facts.by].kind === 'told'
      return isTold
        ? { say: 'told', facts, remedy: { kind: 'read', facts: [facts.by] } }
        : { say: 'kept', facts }
    }
    return at.keepData
      ? { say: 'lost', facts, remedy: wish }
      : { say: 'unreadable', facts, remedy: consent }
  },
})

/** Whether a package's start makes data of its own: a part's leaves the system that is there. */
const hangsOn = ({ family, shelved }: Pick<Case, 'family' | 'shelved'>, fact: Fact): boolean =>
  shelved.manifest.kind !== 'part' && family.dataKeys.hangOn.some((one) => one === fact)

/** What decides whether they open and was not read. */
const unreadOf = (values: DataValues, at: Pick<Case, 'family' | 'shelved'>) =>
  HANG.filter((fact) => hangsOn(at, fact) && values[fact] === undefined)

/** What they hang on and goes back, or what they hang on at all: as it is here, and as the package brings it. */
function hangingBy(values: DataValues, { family, shelved: { manifest } }: About) {
  const by =
    goneBackIn(values, { family, shelved: { manifest } }) ??
    HANG.find((fact) => family.dataKeys.hangOn.includes(fact)) ??
    'release'
  return { by, here: values[by] ?? '', brings: manifest[by] ?? '' }
}

/**
 * A build that is known for a device like this and is newer, by release or patch date: it may have used the data. Undefined:
 * none is, and whatever used them is not.
 */
function newerThan({
  shelved: { manifest },
  shelf,
}: Pick<Case, 'shelved' | 'shelf'>): Manifest | undefined {
  for (const { model } of manifest.targets) {
    const newest = newestOf(shelf, manifest.family, model)
    if (newest === undefined) continue
    if (newest.release.release > manifest.release) return newest.release
    if (newest.patchDate.patchDate > manifest.patchDate) return newest.patchDate
  }
  return undefined
}

/** What decides it, of a case as it stands. */
export const fateIn = (at: Case): FateWhy => fateWhy(valuesIn(at), at)

const valuesIn = ({ identity }: Case): DataValues =>
  Object.fromEntries(
    [...HANG, ...BESIDES].flatMap((fact) => {
      const value = settled(identity, fact)
      return value === undefined ? [] : [[fact, value]]
    }),
  )

/** What decides it, by these values. */
export function fateWhy(values: DataValues, at: About): FateWhy {
  const { family, shelved } = at
  /* What is gone already nothing takes. */
  if (at.data !== undefined) return 'untouched'
  const theirs = family.partitions.filter(({ role }) => role === 'customer')
  const { manifest } = shelved
  if (wipesByForm(manifest)) return 'erased'
  if (theirs.some(({ name }) => manifest.effects.erases.includes(name))) return 'erased'
  const back = goneBackIn(values, at)
  const own = erasedFor(values, at)
  if (back !== undefined) return own ?? (back === 'patchDate' ? back : 'release')
  if (own !== undefined) return own
  return adopted(values, at) === 'from-new' ? 'adopted' : 'untouched'
}

/**
 * Why a plan erases the customer's data by itself: what it goes back to could not open them, or another variant is
 * taken up from new; they need not survive, and some mode erases them. Undefined: it does not.
 */
export const whyErased = (at: Case): FateWhy | undefined => erasedFor(valuesIn(at), at)

function erasedFor(values: DataValues, at: About): FateWhy | undefined {
  const can = modeTaking(at.family, 'erase', 'customer') !== undefined
  if (at.keepData || !can || at.data !== undefined) return undefined
  if (goneBackIn(values, at) !== undefined) return 'back'
  if (adopted(values, at) === 'from-new') return 'adopted'
  const unread = unreadOf(values, at).length > 0 && newerThan(at) !== undefined
  /* The settings of one that does not start are never read before it was written. */
  if (unread && cannotStart(at)) return 'unseen'
  const { kind } = at.shelved.manifest
  const whole = kind !== 'part' && kind !== 'service'
  const first = at.intent === 'downgrade' && at.house.downgrade === 'first'
  return whole && (at.house.data === 'new' || first) ? 'house' : undefined
}

const adopted = ({ region, carrier, ...board }: DataValues, at: About) =>
  adoptionOf(at, { ...board, region, carrier })

/** What the data hang on that the package does not reach. */
function goneBackIn(
  { release, patchDate, track }: Hanging,
  { family, shelved: { manifest } }: { family: Family; shelved: Pick<Case['shelved'], 'manifest'> },
): (typeof HANG)[number] | undefined {
  /* Starts of service software move no data, nor what they hang on. */
  if (manifest.kind === 'part' || manifest.kind === 'service') return undefined
  const { hangOn } = family.dataKeys
  if (hangOn.includes('release') && manifest.release < Number(release ?? 0)) return 'release'
  const back = isTrackBack(family, String(track ?? ''), manifest.track ?? '')
  if (hangOn.includes('track') && back) return 'track'
  const older = hangOn.includes('patchDate') && manifest.patchDate < String(patchDate ?? '')
  return older ? 'patchDate' : undefined
}
