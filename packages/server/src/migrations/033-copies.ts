/** Copies of the shop: the folder that the house names for them, and how each came out. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('shop', (table) => {
    table.text('copy_folder')
    table.timestamp('copy_named_at', { useTz: true })
  })
  await knex.schema.createTable('copies', (table) => {
    table.increments('id')
    table.text('folder').notNullable()
    table.timestamp('at', { useTz: true }).notNullable()
    /** Null: it came out whole. */
    table.text('why')
    table.integer('mib').notNullable().defaultTo(0)
    table.integer('entries').notNullable().defaultTo(0)
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('copies')
  await knex.schema.alterTable('shop', (table) => table.dropColumns('copy_folder', 'copy_named_at'))
}
