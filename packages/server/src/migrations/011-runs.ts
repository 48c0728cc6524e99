import type { Knex } from 'knex'

/**
 * Runs with their leases, and the mirror of each run's journal. Epochs come from one sequence for the
 * whole shop, so that a device never meets the same one twice.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('create sequence run_epochs start 1')
  await knex.schema.createTable('runs', (table) => {
    table.uuid('id').primary()
    table.text('slip').references('slips.number')
    table.text('serial').notNullable().index()
    table.text('port').notNullable().references('ports.name')
    table.text('cable')
    table.text('package').notNullable()
    table.jsonb('plan').notNullable()
    table.jsonb('commands').notNullable()
    table.jsonb('steps').notNullable()
    table.jsonb('places').notNullable()
    table.text('state').notNullable()
    table.boolean('wanted').notNullable().defaultTo(true)
    table.boolean('stopping').notNullable().defaultTo(false)
    table.boolean('put_away').notNullable().defaultTo(false)
    table.jsonb('answers').notNullable().defaultTo('{}')
    table.text('owner')
    table.bigInteger('epoch').notNullable().defaultTo(0)
    table.timestamp('until', { useTz: true })
    table.jsonb('shown')
    table.uuid('by').references('people.id')
    table.timestamp('started_at', { useTz: true }).notNullable()
    table.timestamp('ended_at', { useTz: true })
    table.integer('version').notNullable().defaultTo(1)
  })
  await knex.raw('create unique index runs_one_a_port on runs (port) where not put_away')
  await knex.schema.createTable('run_entries', (table) => {
    table.uuid('run').notNullable().references('runs.id')
    table.integer('n').notNullable()
    table.jsonb('entry').notNullable()
    table.primary(['run', 'n'])
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('run_entries')
  await knex.schema.dropTable('runs')
  await knex.raw('drop sequence run_epochs')
}
