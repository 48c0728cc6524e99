/**
 * Ports and cables that the house names itself: a port's address and whose agent holds it; what was struck out stays as a
 * row, for the runs that were there. What an agent tells of a port has the way to it.
 */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('ports', (table) => {
    table.text('address')
    table.text('agent')
    table.boolean('struck').notNullable().defaultTo(false)
  })
  await knex.schema.alterTable('cables', (table) => {
    table.boolean('struck').notNullable().defaultTo(false)
  })
  await knex.schema.alterTable('port_sights', (table) => {
    table.text('way')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('port_sights', (table) => table.dropColumn('way'))
  await knex.schema.alterTable('cables', (table) => table.dropColumn('struck'))
  await knex.schema.alterTable('ports', (table) => table.dropColumns('address', 'agent', 'struck'))
}
