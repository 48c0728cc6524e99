/** Who asked a run to stop; or the charge for which it was stopped, and what its rest could draw then. Kept until it is taken up. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.uuid('stop_by').references('people.id')
    table.jsonb('low')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.dropColumns('stop_by', 'low')
  })
}
