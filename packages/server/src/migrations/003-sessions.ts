import type { Knex } from 'knex'

/** The table that connect-pg-simple reads and writes; its shape is that library's. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('sessions', (table) => {
    table.text('sid').primary()
    table.json('sess').notNullable()
    table.timestamp('expire', { useTz: true, precision: 6 }).notNullable().index()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('sessions')
}
