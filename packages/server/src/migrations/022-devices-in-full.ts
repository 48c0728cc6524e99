import type { Knex } from 'knex'

type Placed = { readonly kind: string; readonly facts: Readonly<Record<string, unknown>> }

/** The one family there was, in its own words. */
const NAMES: Readonly<Record<string, string>> = {
  off: 'off',
  normal: 'normal mode',
  loader: 'the loader',
  rescue: 'rescue',
}

/** A step says the mode it is in or leads to by its name. */
function placedNow(step: Placed): Placed {
  const { kind, facts } = step
  if (kind === 'meet') return { ...step, facts: { ...facts, mode: NAMES['loader'] } }
  if (kind === 'restart') return { ...step, facts: { ...facts, to: NAMES['loader'] } }
  if (kind !== 'enter') return step
  const to = String(facts['to'])
  return { ...step, facts: { ...facts, to: NAMES[to] ?? to } }
}

type Ends = { readonly readable?: boolean; readonly outcome: string }

/**
 * A taken plan says what becomes of the data in one word of three, and what was assumed for its rehearsal; a
 * device that starts without radio starts, and cannot do that.
 */
export async function up(knex: Knex): Promise<void> {
  const taken = (await knex('slip_plans').select('id', 'made')) as {
    id: string
    made: { ends: Ends }
  }[]
  for (const { id, made } of taken) {
    const { readable = true, ...ends } = made.ends
    const data = readable ? 'readable' : 'unreadable'
    const now = {
      ...made,
      ends: { ...ends, data, shows: null },
      fails: null,
      assumed: { parts: [], facts: {} },
    }
    await knex('slip_plans')
      .where({ id })
      .update({ made: JSON.stringify(now) })
  }
  const runs = (await knex('runs').select('id', 'steps')) as { id: string; steps: Placed[] }[]
  for (const { id, steps } of runs)
    await knex('runs')
      .where({ id })
      .update({ steps: JSON.stringify(steps.map(placedNow)) })
  await knex.raw(`update devices
    set facts = facts || '{"outcome": "normal", "limits": ["no-radio"]}'::jsonb
    where facts ->> 'outcome' = 'no-radio'`)
}

/** What was added is not read by what was before, but for the word on the data. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`update slip_plans set made =
    jsonb_set(made, '{ends,readable}', to_jsonb(made -> 'ends' ->> 'data' = 'readable'))`)
}
