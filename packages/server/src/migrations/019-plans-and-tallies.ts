import type { Knex } from 'knex'

/**
 * A taken plan is kept as it was made and shown afresh; a tally is figures and no line of text. Plans that no
 * run was begun from are taken again: that costs a look at them. Of the others the run has the plan.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('slip_plans', (table) => table.jsonb('made'))
  const rows = (await knex('slip_plans').select('id', 'slip', 'shown')) as {
    id: string
    slip: string
    shown: Shown
  }[]
  for (const { id, slip, shown } of rows) {
    const run = (await knex('runs').where({ slip }).orderBy('started_at', 'desc').first('plan')) as
      { plan: object } | undefined
    if (run === undefined) await knex('slip_plans').where({ id }).delete()
    else
      await knex('slip_plans')
        .where({ id })
        .update({ made: JSON.stringify(madeOf(run.plan, shown)) })
  }
  await knex.schema.alterTable('slip_plans', (table) => {
    table.dropColumn('shown')
    table.dropNullable('made')
  })
  await knex.schema.createTable('slip_tallies', (table) => {
    table.bigIncrements('id')
    table.text('slip').notNullable().references('slips.number').index()
    table.text('when').notNullable()
    table.integer('items').notNullable()
    table.bigInteger('bytes').notNullable()
    table.boolean('opens').notNullable()
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
  })
  await knex.raw(`
    insert into slip_tallies (slip, "when", items, bytes, opens, by, at)
    select slip, split_part(topic, '.', 2), split_part(answer, ' ', 1)::int,
           split_part(answer, ' ', 2)::bigint, split_part(answer, ' ', 3) = 'opens', by, at
    from slip_lines where topic in ('tally.before', 'tally.after') order by id`)
  await knex('slip_lines').whereIn('topic', ['tally.before', 'tally.after']).delete()
}

type Shown = Readonly<Record<string, unknown>> & {
  readonly steps: readonly { readonly number: number; readonly worst: string }[]
  readonly wall: { readonly partitions: unknown }
}

/** What a plan was made with, out of what was shown of it. */
function madeOf(plan: object, shown: Shown): object {
  const { time, hands, needs, restarts, fates, wayBackUntil } = shown
  return {
    plan,
    port: shown['port'],
    folds: { time, hands, drains: 0, needs, restarts, fates, wayBackUntil },
    judged: { verdict: shown['verdict'], findings: shown['findings'] },
    worst: shown.steps.map(({ number, worst }) => [number, worst]),
    ends: shown['ends'],
    reaches: shown['reaches'],
    own: {},
    partitions: shown.wall.partitions,
    wayBack: shown['wayBack'],
  }
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    insert into slip_lines (slip, topic, answer, by, at)
    select slip, 'tally.' || "when", concat_ws(' ', items, bytes, case when opens then 'opens' else 'closed' end),
           by, at from slip_tallies order by id`)
  await knex.schema.dropTable('slip_tallies')
  await knex('slip_plans').delete()
  await knex.schema.alterTable('slip_plans', (table) => {
    table.dropColumn('made')
    table.jsonb('shown').notNullable()
  })
}
