/** Permits of makers as files, by the digest of their text: a slip's line names one. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('permits', (table) => {
    table.text('sha256').primary()
    table.text('text').notNullable()
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('permits')
}
