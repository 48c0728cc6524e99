/** After the first start: what was promised, what it was, and what the device says of itself now. */
import type { AnswerOf, Contract, FindingShown } from '@plain-slate/api'
import type { DeviceFacts, Expected } from '@plain-slate/core'
import { PATCH_LOOK_DAYS } from '../shop/rules.ts'
import type { JobAt } from './job-at.ts'

const DAY_MS = 86_400_000

/** The day on which to look for the next patch: the patch's own date and the house's days. */
export const nextPatch = (patchDate: string): string =>
  new Date(Date.parse(patchDate) + PATCH_LOOK_DAYS * DAY_MS).toISOString().slice(0, 10)

type Proof = Omit<AnswerOf<Contract['jobProof']>, 'paper'>

/** Facts that a plan promises, and those it must leave as they were. */
const PROMISED = ['build', 'release', 'patchDate', 'loaderVersion', 'floor'] as const
const LEFT = ['bootLock', 'serial', 'region'] as const

export function proofOf({ run, taken, sight, device }: JobAt): Proof {
  const asked = device !== undefined && device.at > (run?.endedAt ?? '')
  const now =
    run?.state === 'ended' ? (sight?.facts ?? (asked ? device.facts : undefined)) : undefined
  if (run === undefined || taken === undefined) return { facts: [], next: null, marks: [] }
  const expected = run.plan.expected
  const aim = run.plan.packages.at(-1)?.manifest
  const was = (fact: string) => taken.basis[`fact.${fact}`] ?? null
  const promised = (fact: (typeof PROMISED)[number]) =>
    fact === 'patchDate' ? (aim?.patchDate ?? '') : expected[fact as keyof Expected]
  const facts: Proof['facts'] = [
    ...PROMISED.map((fact) => told(fact, was(fact), promised(fact), now?.[fact])),
    ...LEFT.map((fact) => told(fact, was(fact), was(fact), now?.[fact])),
    told('outcome', null, 'normal', now?.outcome),
  ]
  return {
    facts,
    next: run.state === 'ended' && aim !== undefined ? nextPatch(aim.patchDate) : null,
    marks: taken.shown.findings.filter(isLasting),
  }
}

const isLasting = ({ marks }: FindingShown): boolean =>
  marks.some(({ kind }) => kind === 'irreversible')

function told(
  fact: string,
  was: string | null,
  promised: string | number | null,
  now: DeviceFacts[keyof DeviceFacts],
): Proof['facts'][number] {
  const value = now ?? null
  const holds = value === null ? null : String(value) === String(promised ?? '')
  return { fact, was, promised, now: value, holds }
}
