import type { Knex } from 'knex'

/** One row: the house. `clock_offset_ms` is shop time minus real time; zero outside the demo. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('shop', (table) => {
    table.smallint('id').primary().checkIn(['1'])
    table.text('name').notNullable()
    table.text('place').notNullable()
    table.text('zone').notNullable()
    table.boolean('demo').notNullable()
    table.bigint('clock_offset_ms').notNullable()
    table.integer('next_slip').notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('shop')
}
