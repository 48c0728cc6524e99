/**
 * What becomes of the customer's data: wiped when the package erases its partition, there but unreadable
 * when its keys hang on something that goes back, kept otherwise. What the family has no place for
 * cannot be promised.
 */
import { settled } from '../../device/identity.ts'
import { lockChange } from '../../effect/effect.ts'
import { modeTaking } from '../../family/modes.ts'
import { isTrackBack } from '../../family/profile.ts'
import type { Answer, Case, Rule, Values } from '../rule.ts'

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
  'back',
  'lock',
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
  /** Closing the boot lock takes it. */
  lock: 'wiped',
  erased: 'wiped',
  written: 'wiped',
  placeless: 'unpromised',
}

export const dataFate: Rule = {
  id: 'promise.data',
  needs: ['release', 'patchDate'],
  final: false,
  codes: [
    'fit.promise.data.kept',
    'fit.promise.data.unreadable',
    'fit.promise.data.wiped',
    'fit.promise.data.unpromised',
  ],
  check: (values, at) => {
    const fate = fateOf(values, at)
    const code = `fit.promise.data.${fate}`
    const facts = { here: values.release ?? '', release: at.shelved.manifest.release }
    const { placeless } = at
    if (fate === 'kept' && at.keepData && placeless.length > 0)
      return {
        verdict: 'fits-if',
        code: 'fit.promise.data.unpromised',
        facts: { things: placeless.join(', ') },
        remedy: 'consent',
      }
    if (fate === 'kept') return { verdict: 'fits', code, facts } satisfies Answer
    return at.keepData
      ? { verdict: 'does-not-fit', code, facts }
      : { verdict: 'fits-if', code, facts, remedy: 'consent' }
  },
}

/** The fate of what lies on the customer's partition. */
export const fateOf = (values: Values, at: Case): Fate => FATE_OF[fateWhy(values, at)]

/** What decides it. */
export function fateWhy(values: Values, at: Case): FateWhy {
  const { family, shelved } = at
  const theirs = family.partitions.filter(({ role }) => role === 'customer')
  if (theirs.some(({ name }) => shelved.manifest.effects.erases.includes(name))) return 'erased'
  const back = goesBack(values, at)
  if (back !== 'untouched') return whyErased(at) === undefined ? back : 'back'
  const model = String(settled(at.identity, 'model') ?? '')
  const closes = at.intent === 'relock' && settled(at.identity, 'bootLock') === 'open'
  return closes && lockChange(family, 'closed', model) !== 'keeps' ? 'lock' : 'untouched'
}

/**
 * Why a plan erases the customer's data by itself: what it goes back to could not open them, they need not
 * survive, and some mode erases them. Undefined: it does not.
 */
export function whyErased(at: Case): FateWhy | undefined {
  const { family, identity, keepData } = at
  const values = {
    release: settled(identity, 'release') ?? 0,
    patchDate: settled(identity, 'patchDate') ?? '',
    track: settled(identity, 'track') ?? '',
  }
  const back = goesBack(values, at)
  const can = modeTaking(family, 'erase', 'customer') !== undefined
  return back !== 'untouched' && !keepData && can ? 'back' : undefined
}

/** What the data hang on that the package does not reach. */
function goesBack(
  { release, patchDate, track }: Values,
  { family, shelved: { manifest } }: Case,
): 'untouched' | 'release' | 'patchDate' {
  if (manifest.kind === 'part') return 'untouched'
  const { hangOn } = family.dataKeys
  if (hangOn.includes('release') && manifest.release < Number(release)) return 'release'
  const back = isTrackBack(family, String(track ?? ''), manifest.track ?? '')
  if (hangOn.includes('track') && back) return 'release'
  const older = hangOn.includes('patchDate') && manifest.patchDate < String(patchDate)
  return older ? 'patchDate' : 'untouched'
}
