/** After the first start: what core proves of a job, as the contract takes it. */
import type { AnswerOf, Contract, FindingShown } from '@plain-slate/api'
import { nextPatchDay, provenFacts } from '@plain-slate/core'
import { PATCH_LOOK_DAYS } from '../shop/rules.ts'
import type { JobAt } from './job-at.ts'

/** The day on which to look for the next patch, by the house's days. */
export const nextPatch = (patchDate: string): string => nextPatchDay(patchDate, PATCH_LOOK_DAYS)

type Proof = Omit<AnswerOf<Contract['jobProof']>, 'paper'>

export function proofOf({ run, taken, sight, device }: JobAt): Proof {
  if (run === undefined || taken === undefined) return { facts: [], marks: [] }
  const ended = run.state === 'ended'
  /* A device that was read before the run ended says nothing of what it is now. */
  const read = device !== undefined && device.at > (run.endedAt ?? '') ? device.facts : undefined
  const aim = run.plan.packages.at(-1)?.manifest
  const facts = provenFacts({
    expected: run.plan.expected,
    patchDate: aim?.patchDate ?? '',
    was: (fact) => taken.basis[`fact.${fact}`],
    now: ended ? (sight?.facts ?? read) : undefined,
  })
  return {
    facts: facts.map(({ fact, was, promised, now, holds }) => ({
      fact,
      was: was ?? null,
      promised: promised ?? null,
      now: now ?? null,
      holds: holds ?? null,
    })),
    marks: taken.shown.findings.filter(isLasting),
  }
}

const isLasting = ({ marks }: FindingShown): boolean =>
  marks.some(({ kind }) => kind === 'irreversible')
