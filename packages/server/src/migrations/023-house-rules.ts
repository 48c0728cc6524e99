import type { Knex } from 'knex'

/** What the house decided, one row that only grows: the newest stands, the older ones are its history. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('house_rules', (table) => {
    table.increments('version')
    table.jsonb('rules').notNullable()
    table.uuid('by').references('id').inTable('people')
    table.timestamp('at', { useTz: true }).notNullable()
    table.text('reason').notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('house_rules')
}
