import type { Knex } from 'knex'

/** People with their PIN hashes; `failures` and `wait_until` (real time) slow down guessing. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('people', (table) => {
    table.uuid('id').primary()
    table.text('name').notNullable().unique()
    table.text('role').notNullable().checkIn(['trainee', 'technician', 'lead'])
    table.text('pin_hash').notNullable()
    table.boolean('active').notNullable().defaultTo(true)
    table.timestamp('added_at', { useTz: true }).notNullable()
    table.integer('failures').notNullable().defaultTo(0)
    table.timestamp('wait_until', { useTz: true })
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('people')
}
