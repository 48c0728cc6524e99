/** Families that people took in: each version once, as its file was. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('families', (table) => {
    table.text('id').notNullable()
    table.integer('version').notNullable()
    table.text('body').notNullable()
    table.uuid('by').references('id').inTable('people')
    table.timestamp('at', { useTz: true }).notNullable()
    table.primary(['id', 'version'])
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('families')
}
