import type { Knex } from 'knex'

/** Calls that were refused to somebody, counted by the hour: the book has the first, and how many followed. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('refusals', (table) => {
    table.uuid('person').notNullable().references('people.id')
    table.text('what').notNullable()
    table.timestamp('hour', { useTz: true }).notNullable()
    table.integer('n').notNullable()
    /** How many of them stand in the book. */
    table.integer('told').notNullable()
    table.primary(['person', 'what', 'hour'])
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('refusals')
}
