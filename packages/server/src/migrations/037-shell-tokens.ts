/** Tokens by which people act at the shell under their name. What a token reads is kept as a digest only. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('shell_tokens', (table) => {
    table.uuid('id').primary()
    table.uuid('person').notNullable().references('people.id').onDelete('CASCADE')
    /** Null: a PIN was given at the shell, and this stands for the working day after it. */
    table.text('name')
    table.text('digest').notNullable().unique()
    table.timestamp('made_at', { useTz: true }).notNullable()
    table.timestamp('ends_at', { useTz: true }).notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('shell_tokens')
}
