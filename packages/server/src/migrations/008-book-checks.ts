import type { Knex } from 'knex'

/** What each walk over the whole chain found. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('book_checks', (table) => {
    table.timestamp('at', { useTz: true }).primary()
    table.integer('entries').notNullable()
    table.text('head').notNullable()
    table.boolean('holds').notNullable()
    table.integer('broken_seq')
    table.text('why')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('book_checks')
}
