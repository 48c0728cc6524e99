/** Which key signed a catalogue, by the key itself: a depot is bound to it under whatever name its file has. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('catalogues', (table) => {
    table.text('key_id')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('catalogues', (table) => table.dropColumn('key_id'))
}
