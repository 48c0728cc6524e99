import type { Knex } from 'knex'

/** What a bench has: ports, and cables with the port each hangs on. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('ports', (table) => {
    table.text('name').primary()
    table.text('note').notNullable().defaultTo('')
  })
  await knex.schema.createTable('cables', (table) => {
    table.text('name').primary()
    table.text('port').unique().references('ports.name')
    table.text('note').notNullable().defaultTo('')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('cables')
  await knex.schema.dropTable('ports')
}
