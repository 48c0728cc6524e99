/** Overruling a rule of fit for one package: who may is the rule's own word, and a reason stands beside it. */
import type { Face } from '@plain-slate/api'
import type { Act, Overruler, Result } from '@plain-slate/core'
import { RULES, msOf, overruleTopic, overruledWith, refuse, standingLines } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { enter, layText } from '../book/append.ts'
import type { Second } from '../people/beside.ts'
import { allowed } from '../people/beside.ts'
import type { Transaction } from '../tables/database.ts'
import { insertLines, listLines } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { raiseVersion } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import { onOpenSlip } from './open-slip.ts'

/** What who overrules must be allowed to do. */
const ACT_OF: Readonly<Record<Exclude<Overruler, 'nobody'>, Act>> = {
  anyone: 'rule.overrule',
  lead: 'rule.overrule.lead',
  two: 'rule.overrule.two',
}

type Asked = {
  readonly rule: string
  /** The key of the package for which it is. */
  readonly package: string
  readonly reason: string
  /** False: it is taken back. */
  readonly stands: boolean
  readonly second?: Second
  readonly who: Face
}

/** Overrules a rule, or takes that back; answers the job after it. */
export async function overruleRule(
  workshop: Workshop,
  number: string,
  asked: Asked,
): Promise<Result<JobAt, Refusal>> {
  const { rule, reason, stands } = asked
  const known = RULES.find(({ id }) => id === rule)
  if (known === undefined || known.overruled === 'nobody')
    return refuse({ code: 'rule.final', facts: { rule } })
  const act = ACT_OF[known.overruled]
  const topic = overruleTopic(rule)
  if (stands && reason === '') return refuse({ code: 'slip.reason', facts: { topic } })
  /* What was refused stays in the book: it is entered in a transaction of its own. */
  const beside = await workshop.db.transaction((trx) =>
    allowed(workshop, trx, { act, actor: asked.who, slip: number, second: asked.second }),
  )
  if (!beside.ok) return beside
  return onOpenSlip(workshop, number, async (trx) => {
    await putDown(workshop, trx, number, { ...asked, topic, beside: beside.value?.id ?? '' })
    await tell(trx, 'slip', number, await raiseVersion(trx, number))
    return undefined
  })
}

async function putDown(
  workshop: Workshop,
  trx: Transaction,
  slip: string,
  {
    rule,
    package: key,
    reason,
    stands,
    who,
    topic,
    beside,
  }: Asked & { topic: string; beside: string },
): Promise<void> {
  const all = await listLines(trx, slip)
  const standing = standingLines(all.map((line) => ({ ...line, at: msOf(line.at) })))
  const answer = overruledWith(standing, rule, { key, stands })
  const note = reason === '' ? undefined : await layText(trx, slip, reason)
  const at = new Date(await workshop.clock.now())
  await insertLines(trx, slip, [{ topic, answer, by: who.id, at, noteText: note?.id ?? null }])
  await enter(workshop, trx, {
    by: who.id,
    act: 'rule.overruled',
    slip,
    facts: { rule, package: key, stands: stands ? 1 : 0, second: beside },
    ...(note === undefined ? {} : { texts: { note } }),
  })
}
