/** Taking a family in from its file: what is wrong with it by line, what it would change, then the act itself. */
import type { BodyOf, Contract, Face, FamilyTaken } from '@plain-slate/api'
import type { Family, Json, Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { withFamily } from '../base/families.ts'
import { parseFamily } from '../base/parse-beside.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { enter } from '../book/append.ts'
import { insertFamily } from '../tables/families.ts'
import { tell } from '../tables/news.ts'
import { asTold } from './family-trial.ts'
import { decidedOtherwise, digestOf } from './family-decided.ts'

/** Reads a file; takes it in where that is asked and nothing is wrong with it. */
export async function takeFamily(
  workshop: Workshop,
  { text, take }: BodyOf<Contract['familyTake']>,
  actor: Face | undefined,
): Promise<Result<FamilyTaken, Refusal>> {
  const read = await parseFamily(text)
  if (read === 'late') return refuse({ code: 'family.late' })
  if (!read.ok) return ok({ wrong: [...read.refusal], family: null, taken: false })
  const { family, trial } = read.value
  const known = workshop.families.find(({ id }) => id === family.id)
  const older = known !== undefined && known.version >= family.version
  const shown = {
    wrong: [],
    family: {
      id: family.id,
      version: family.version,
      maker: family.maker,
      models: family.models.map(({ code }) => code),
      modes: family.modes.length,
      known: known?.version ?? null,
      clashes: clashesWith(workshop.families, family),
      decided: older ? [] : await decidedWith(workshop, family),
      profile: family as unknown as Json,
      trial: asTold(trial),
    },
  }
  if (!take) return ok({ ...shown, taken: false })
  const [clash] = shown.family.clashes
  if (clash !== undefined) return refuse({ code: 'family.clash', facts: clash })
  const facts = { id: family.id, version: family.version, known: known?.version ?? 0 }
  if (older) return refuse({ code: 'family.older', facts })
  const by = actor?.id ?? null
  const put = await workshop.db.transaction(async (trx) => {
    const at = new Date(await workshop.clock.now())
    const file = { id: family.id, version: family.version, body: text, by, at }
    if (!(await insertFamily(trx, file))) return false
    await enter(workshop, trx, {
      by,
      act: 'family.taken',
      facts: { id: family.id, version: family.version, digest: digestOf(family) },
    })
    await tell(trx, 'shop', 'families', family.version)
    return true
  })
  if (!put) return refuse({ code: 'family.older', facts })
  await workshop.reloadFamilies()
  return ok({ ...shown, taken: true })
}

/** Models that another family names already: a device is of one family. */
const clashesWith = (families: readonly Family[], { id, models }: Family) =>
  families
    .filter((one) => one.id !== id)
    .flatMap((one) =>
      one.models
        .filter(({ code }) => models.some((model) => model.code === code))
        .map(({ code }) => ({ model: code, family: one.id })),
    )

/** Open slips that another version decided, as they would stand with this one. */
const decidedWith = (workshop: Workshop, family: Family) =>
  decidedOtherwise({ ...workshop, families: withFamily(workshop.families, family) }, family)
