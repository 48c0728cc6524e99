import type { Knex } from 'knex'

/**
 * A stop is an order with a number of its own: asked by a person, heard and met by whoever drives. A run
 * that was asked to stop before keeps that as its first order. What answers at a port and cannot be used is told.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.integer('stop_asked').notNullable().defaultTo(0)
    table.integer('stop_heard').notNullable().defaultTo(0)
    table.integer('stop_met').notNullable().defaultTo(0)
  })
  await knex('runs').where({ stopping: true }).update({ stop_asked: 1 })
  await knex.schema.alterTable('runs', (table) => table.dropColumn('stopping'))
  await knex.schema.alterTable('port_sights', (table) => table.text('odd'))
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('port_sights', (table) => table.dropColumn('odd'))
  await knex.schema.alterTable('runs', (table) => {
    table.boolean('stopping').notNullable().defaultTo(false)
    table.dropColumns('stop_asked', 'stop_heard', 'stop_met')
  })
}
