import type { Knex } from 'knex'

/**
 * The job of a slip: lines that people said, readings with their sources, plans that were taken with what
 * they rest on. All three only grow; the newest counts. Looks may go into the loader under an epoch.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('slip_lines', (table) => {
    table.bigIncrements('id')
    table.text('slip').notNullable().references('slips.number').index()
    table.text('topic').notNullable()
    table.text('answer').notNullable()
    table.uuid('note_text').references('personal_texts.id')
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
  })
  await knex.schema.createTable('slip_readings', (table) => {
    table.bigIncrements('id')
    table.text('slip').notNullable().references('slips.number').index()
    table.text('fact').notNullable()
    table.jsonb('value').notNullable()
    table.text('source').notNullable()
    table.text('mode')
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
  })
  await knex.schema.createTable('slip_plans', (table) => {
    table.bigIncrements('id')
    table.text('slip').notNullable().references('slips.number').index()
    table.text('package').notNullable()
    table.text('digest').notNullable()
    table.text('mode').notNullable()
    table.jsonb('basis').notNullable()
    table.jsonb('shown').notNullable()
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
  })
  await knex.schema.alterTable('looks', (table) => {
    table.bigInteger('epoch')
  })
  await knex.schema.alterTable('runs', (table) => {
    table.jsonb('made')
    table.jsonb('wall').notNullable().defaultTo('[]')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.dropColumn('wall')
    table.dropColumn('made')
  })
  await knex.schema.alterTable('looks', (table) => {
    table.dropColumn('epoch')
  })
  for (const name of ['slip_plans', 'slip_readings', 'slip_lines'])
    await knex.schema.dropTable(name)
}
