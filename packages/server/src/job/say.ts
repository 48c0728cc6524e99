/** Saying things of a slip: lines under a name, and readings put down by hand. */
import type { BodyOf, Contract, Slip } from '@plain-slate/api'
import type { Fact, FactValue, Family, Result } from '@plain-slate/core'
import { isOver, endedBy, ok, readBuild, refuse, takes, topicOf } from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import { enter, layText } from '../book/append.ts'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import type { Transaction } from '../tables/database.ts'
import { insertLines, insertReadings } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { lockSlip, raiseVersion, updateState } from '../tables/slips.ts'
import type { JobAt } from './load.ts'
import { loadJob } from './load.ts'

type Draft = BodyOf<Contract['jobLines']>['lines'][number]

/** Does something to a slip that is not over, under its lock; answers the job after it. */
export async function onOpenSlip(
  house: House,
  number: string,
  act: (trx: Transaction, slip: Slip) => Promise<Refusal | undefined>,
): Promise<Result<JobAt, Refusal>> {
  const refused = await house.db.transaction(async (trx): Promise<Refusal | undefined> => {
    const slip = await lockSlip(trx, number)
    if (slip === undefined) return { code: 'slip.unknown', facts: { number } }
    if (isOver(slip.state)) return { code: 'slip.ended', facts: { number, state: slip.state } }
    return act(trx, slip)
  })
  return refused === undefined ? loadJob(house, number) : refuse(refused)
}

/** Puts lines down. A damaged cell stops the slip, an account nobody can open declines it. */
export async function sayLines(
  house: House,
  number: string,
  lines: readonly Draft[],
  by: string | null,
): Promise<Result<JobAt, Refusal>> {
  const wrong = lines.find(({ topic, answer }) => {
    const known = topicOf(topic)
    return known === undefined || !takes(known, answer)
  })
  if (wrong !== undefined)
    return refuse({ code: 'slip.line', facts: { topic: wrong.topic, answer: wrong.answer } })
  return onOpenSlip(house, number, async (trx, slip) => {
    const at = new Date(await house.clock.now())
    for (const line of lines) await sayLine(house, trx, number, { ...line, by, at })
    const ended = lines.map(({ topic, answer }) => endedBy(topic, answer)).find(Boolean)
    const version =
      ended === undefined ? await raiseVersion(trx, number) : await updateState(trx, number, ended)
    if (ended !== undefined) {
      const facts = { from: slip.state, to: ended }
      await enter(house, trx, { by, act: 'slip.state', slip: number, facts })
    }
    await tell(trx, 'slip', number, version)
    return undefined
  })
}

async function sayLine(
  house: House,
  trx: Transaction,
  slip: string,
  line: Draft & { readonly by: string | null; readonly at: Date },
): Promise<void> {
  const note = line.note === '' ? undefined : await layText(trx, slip, line.note)
  const { topic, answer, by, at } = line
  await insertLines(trx, slip, [{ topic, answer, by, at, noteText: note?.id ?? null }])
  await enter(house, trx, {
    by,
    act: 'slip.line',
    slip,
    facts: { topic, answer },
    ...(note === undefined ? {} : { texts: { note } }),
  })
}

/** Facts whose values are whole numbers. */
const NUMBERS: readonly Fact[] = [
  'storageGb',
  'release',
  'loaderVersion',
  'floor',
  'batteryPercent',
]

/** A typed value as the fact takes it; look-alike characters are told, never swapped in silence. */
export function readValue(
  families: readonly Family[],
  fact: Fact,
  typed: string,
): Result<FactValue, { readonly why: 'number' | 'grammar' | 'model'; readonly perhaps: string }> {
  if (NUMBERS.includes(fact)) {
    const value = Number(typed)
    return Number.isSafeInteger(value) && value >= 0
      ? ok(value)
      : refuse({ why: 'number', perhaps: '' })
  }
  if (fact === 'build') {
    const reads = families.map((family) => readBuild(family.build, typed))
    const read = reads.find((one) => one.ok)
    if (read?.ok === true) return ok(read.value.text)
    const perhaps = reads.flatMap((one) => (one.ok ? [] : [one.refusal.perhaps ?? '']))
    return refuse({ why: 'grammar', perhaps: perhaps.find((one) => one !== '') ?? '' })
  }
  if (fact === 'model') {
    const codes = families.flatMap(({ models }) => models.map(({ code }) => code))
    const perhaps = codes.find((code) => alike(code) === alike(typed) && code !== typed)
    return perhaps === undefined ? ok(typed) : refuse({ why: 'model', perhaps })
  }
  return ok(typed)
}

/** Characters that people take for each other, as one. */
const alike = (text: string): string =>
  text.toUpperCase().replace(/[O]/g, '0').replace(/[IL]/g, '1').replace(/S/g, '5')

/** Puts a reading down that somebody made. */
export async function typeReading(
  house: House,
  number: string,
  typed: BodyOf<Contract['jobReading']>,
  by: string | null,
): Promise<Result<JobAt, Refusal>> {
  const { fact, source } = typed
  const value = readValue(house.families, fact, typed.value)
  if (!value.ok) {
    const { why, perhaps } = value.refusal
    const meant = perhaps === '' ? '' : sayAny('en-GB', 'slip.reading.perhaps', { value: perhaps })
    const facts = { value: typed.value, fact, why, perhaps: meant }
    return refuse({ code: 'slip.reading', facts })
  }
  return onOpenSlip(house, number, async (trx) => {
    const at = new Date(await house.clock.now())
    await insertReadings(trx, number, [{ fact, value: value.value, source, mode: null, by, at }])
    const facts = { fact, value: value.value, source }
    await enter(house, trx, { by, act: 'slip.reading', slip: number, facts })
    await tell(trx, 'slip', number, await raiseVersion(trx, number))
    return undefined
  })
}
