/** A reading that takes back what was put down before it of the same fact, value and source. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('slip_readings', (table) => {
    table.boolean('takes_back').notNullable().defaultTo(false)
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('slip_readings', (table) => {
    table.dropColumns('takes_back')
  })
}
