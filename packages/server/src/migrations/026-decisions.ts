/** What plans were decided with: documents by their digest, kept once, and the one that a plan was made of. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('documents', (table) => {
    table.text('sha256').primary()
    table.text('body').notNullable()
  })
  await knex.schema.alterTable('slip_plans', (table) => {
    table.text('decision').references('sha256').inTable('documents')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('slip_plans', (table) => {
    table.dropColumn('decision')
  })
  await knex.schema.dropTable('documents')
}
