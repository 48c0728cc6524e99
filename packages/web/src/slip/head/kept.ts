/** Head drafts that were not saved yet, kept while this tab lives: leaving the page loses nothing. */
import type { HeadDraft } from './head.ts'
import { changedFields } from './head.ts'

export type Kept = { readonly base: HeadDraft; readonly draft: HeadDraft }

const drafts = new Map<string, Kept>()

/** What was typed for this slip and not saved, if anything. */
export const keptDraft = (number: string): Kept | undefined => drafts.get(number)

/** Keeps a draft that says something else than the slip; forgets one that does not. */
export function keepDraft(number: string, base: HeadDraft, draft: HeadDraft): void {
  if (changedFields(base, draft).length === 0) drafts.delete(number)
  else drafts.set(number, { base, draft })
}
