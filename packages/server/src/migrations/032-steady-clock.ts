/**
 * The clock that does not jump, for what is elapsed. Here it is the transaction's own time, which is all that a role without
 * rights on the machine's files can tell; whoever keeps the cluster puts the machine's time since its boot in its place.
 */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('steady_boots', (table) => {
    table.text('boot').primary()
    table.timestamp('origin', { useTz: true }).notNullable()
  })
  await knex.raw(
    `create function steady_now() returns timestamptz language sql stable as 'select now()'`,
  )
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop function steady_now()')
  await knex.schema.dropTable('steady_boots')
}
