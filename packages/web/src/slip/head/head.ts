/**
 * The head's form: what stands, what was typed, what follows. Pure: reads a slip and a draft, gives
 * the change to send and, when somebody else wrote meanwhile, how the two meet.
 */
import type { Slip, SlipChange, SlipField, Theirs } from '@plain-slate/api'
import { SLIP_FIELDS } from '@plain-slate/api'

export type HeadDraft = Readonly<Record<SlipField, string>>

/** What a slip says, as the form writes it. */
export function draftOf(slip: Slip): HeadDraft {
  return Object.fromEntries(SLIP_FIELDS.map((field) => [field, slip[field] ?? ''])) as HeadDraft
}

/** The fields in which the draft says something else than what it began from. */
export function changedFields(base: HeadDraft, draft: HeadDraft): SlipField[] {
  return SLIP_FIELDS.filter((field) => base[field] !== draft[field])
}

/** What is sent: each changed field with what it said before. */
export function changeOf(base: HeadDraft, draft: HeadDraft): SlipChange {
  const changed = changedFields(base, draft)
  return Object.fromEntries(
    changed.map((field) => [field, { from: base[field], to: draft[field] }]),
  ) as SlipChange
}

/**
 * News while somebody types: fields they did not touch follow the slip, touched ones keep what was
 * typed; the base follows only where nothing was typed, so that a conflict is still seen on saving.
 */
export function follow(
  base: HeadDraft,
  draft: HeadDraft,
  slip: Slip,
): { readonly base: HeadDraft; readonly draft: HeadDraft } {
  const now = draftOf(slip)
  const typed = changedFields(base, draft)
  const keep = (from: HeadDraft) =>
    Object.fromEntries(
      SLIP_FIELDS.map((field) => [field, typed.includes(field) ? from[field] : now[field]]),
    ) as HeadDraft
  return { base: keep(base), draft: keep(draft) }
}

/** One field of a conflict decided: theirs stands, or mine is written over theirs knowingly. */
export function settle(
  base: HeadDraft,
  draft: HeadDraft,
  theirs: Theirs,
  whose: 'theirs' | 'mine',
): { readonly base: HeadDraft; readonly draft: HeadDraft } {
  const value = theirs.value ?? ''
  const newBase = { ...base, [theirs.field]: value }
  return { base: newBase, draft: whose === 'mine' ? draft : { ...draft, [theirs.field]: value } }
}
