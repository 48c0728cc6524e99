/**
 * The way from one mode to another as hands go it, leg by leg: what is held and for how long, what arrival looks like
 * and what it is taken for, the usual slip and the way back from it. Reads a profile and the loader's version, where
 * that is known: menus go by it. Gives legs in order; undefined where no way leads there.
 */
import type { HandAct } from '../family/hands.ts'
import { isKind, modeProfile } from '../family/modes.ts'
import type { Family, Way } from '../family/profile.ts'
import type { Mode } from '../terms/device.ts'
import type { Presses } from './menu.ts'
import { menuSentence, pressesTo } from './menu.ts'
import { waysByHand, waysTo } from './ways.ts'

export type Leg = {
  readonly from: Mode
  readonly to: Mode
  readonly how: Way['how']
  readonly hands: boolean
  readonly seconds: number
  /** It is obeyed with the link permission alone. */
  readonly permitted: boolean
  readonly say: string
  readonly acts: readonly HandAct[]
  readonly hurdle: Way['hurdle']
  /** Of a menu: how many presses, for each order its lines may be in. */
  readonly presses: readonly Presses[]
  /** It goes through a start of the system, which may raise a floor. */
  readonly starts: boolean
  readonly looks: string
  /** What arrival is taken for. */
  readonly alike: readonly { readonly mode: Mode; readonly looks: string; readonly tell: string }[]
  /** The usual slip, where it leads, and the ways back to where this leg begins; undefined: nobody knows of one. */
  readonly slip:
    | { readonly say: string; readonly leads: Mode; readonly back: readonly Way[] | undefined }
    | undefined
}

/** `byHand`: nobody tells the device over the link but a run that waits for it, and that where a lead goes. */
export type Going = {
  readonly permission: boolean
  readonly loader: number | undefined
  readonly byHand?: boolean
}

export function legsTo(
  family: Family,
  from: Mode,
  to: Mode,
  going: Going,
): readonly Leg[] | undefined {
  const { permission, byHand = false } = going
  const ways = (byHand ? waysByHand : waysTo)(family, from, to, permission)
  return ways?.map((way, index) => legOf(family, ways[index - 1]?.to ?? from, way, going))
}

function legOf(family: Family, from: Mode, way: Way, { permission, loader }: Going): Leg {
  const { to, how, hands, seconds, needs, acts = [], hurdle, line, slip } = way
  const menu = modeProfile(family, from)?.menu
  const arrived = modeProfile(family, to)
  const taken = menu !== undefined && line !== undefined
  return {
    from,
    to,
    how,
    hands,
    seconds,
    permitted: needs === 'permission',
    say: taken ? menuSentence(menu, line, loader) : way.say,
    acts,
    hurdle,
    presses: taken ? pressesTo(menu, line, loader) : [],
    starts: isKind(family, to, 'system'),
    looks: arrived?.looks ?? '',
    alike: (arrived?.confusedWith ?? []).map(({ mode, tell }) => ({
      mode,
      tell,
      looks: modeProfile(family, mode)?.looks ?? '',
    })),
    slip:
      slip === undefined
        ? undefined
        : { ...slip, back: waysTo(family, slip.leads, from, permission) },
  }
}

/** How long keys are held on a leg, from and to; undefined: it has no timing that a hand could miss. */
export function heldFor({ acts }: Pick<Leg, 'acts'>): readonly [number, number] | undefined {
  return acts.find((act) => (act.do === 'hold' || act.do === 'wait') && act.seconds !== undefined)
    ?.seconds
}
