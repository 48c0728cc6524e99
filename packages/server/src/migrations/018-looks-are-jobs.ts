import type { Knex } from 'knex'

/**
 * A look at a device is a job of its own: asked by somebody, at a port, for a slip or for none; done by an
 * agent; ended as found or failed, with why. One a port at a time. What earlier looks left is history of
 * nobody.
 */
export async function up(knex: Knex): Promise<void> {
  await knex('looks').delete()
  await knex.schema.alterTable('looks', (table) => {
    table.dropColumn('found')
    table.text('slip').references('slips.number').index()
    table.uuid('by').references('people.id')
    table.text('state').notNullable().defaultTo('looking')
    table.jsonb('outcome')
    table.timestamp('ended_at', { useTz: true })
  })
  await knex.raw(`create unique index looks_one_a_port on looks (port) where state = 'looking'`)
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop index looks_one_a_port')
  await knex('looks').delete()
  await knex.schema.alterTable('looks', (table) => {
    table.dropColumns('slip', 'by', 'state', 'outcome', 'ended_at')
    table.jsonb('found')
  })
}
