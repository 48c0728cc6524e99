/**
 * The modes of a family by what they are for: code asks for kinds and for what a mode takes, never for a
 * mode by its name. Reads a profile; gives modes and names.
 */
import type { Fact, Mode, ModeKind, PartRole, Takes } from '../terms/device.ts'
import type { Family, ModeProfile, Way } from './profile.ts'

type Modes = Pick<Family, 'modes'>

/** A mode as the family has it; undefined: it has none of that id. */
export const modeProfile = ({ modes }: Modes, mode: Mode): ModeProfile | undefined =>
  modes.find(({ id }) => id === mode)

/** What a mode is for; undefined: the family has no such mode. */
export const kindOf = (family: Modes, mode: Mode): ModeKind | undefined =>
  modeProfile(family, mode)?.kind

/** The one mode of a kind of which a family has one. Throws where it has none: the schema forbids it. */
export function modeOfKind({ modes }: Modes, kind: 'off' | 'system'): Mode {
  const found = modes.find((mode) => mode.kind === kind)
  if (found === undefined) throw new RangeError(`a family without a mode of the kind ${kind}`)
  return found.id
}

/** Whether a mode is of a kind. */
export const isKind = (family: Modes, mode: Mode, kind: ModeKind): boolean =>
  kindOf(family, mode) === kind

/** A mode's name in a sentence; the id of one that the family does not have. */
export const modeName = (family: Modes | undefined, mode: Mode): string =>
  (family === undefined ? undefined : modeProfile(family, mode))?.name ?? mode

/** Kinds of mode in which a device says nothing over its link, whatever is asked. */
const MUTE: readonly ModeKind[] = ['off', 'hang', 'loop']

/** Whether a device in a mode answers over its link at all. */
export function answersIn(family: Modes, mode: Mode): boolean {
  const kind = kindOf(family, mode)
  return kind !== undefined && !MUTE.includes(kind)
}

/** What a mode looks like on arrival. */
export const looksOf = (family: Modes, mode: Mode): string => modeProfile(family, mode)?.looks ?? ''

/** Whether a mode takes something over the link, for a part of this role where that matters. */
export function takesIn(family: Modes, mode: Mode, what: Takes, role?: PartRole): boolean {
  const roles = modeProfile(family, mode)?.takes[what]
  if (roles === undefined) return false
  return roles === 'any' || role === undefined || roles.includes(role)
}

/** The first mode, in the family's order, that takes something; undefined: none does. */
export const modeTaking = (family: Modes, what: Takes, role?: PartRole): Mode | undefined =>
  family.modes.find(({ id }) => takesIn(family, id, what, role))?.id

/** Whether a way begins in a mode. */
export const beginsIn = ({ from, to }: Pick<Way, 'from' | 'to'>, mode: Mode): boolean =>
  from === 'any' ? to !== mode : from.includes(mode)

/** Whether a fact is shown over the link in a mode. */
export const isToldIn = ({ facts }: Pick<Family, 'facts'>, fact: Fact, mode: Mode): boolean =>
  (facts[fact] ?? []).some(
    ({ source, modes }) => source === 'link' && (modes === 'any' || modes.includes(mode)),
  )
