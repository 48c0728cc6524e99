/** A word that was said against the work while its run lives: it holds the run, and stands on its page. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.jsonb('against')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.dropColumn('against')
  })
}
