import type { Knex } from 'knex'

/** Devices as they were read, what answers at each port now, and looks that are asked for. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('devices', (table) => {
    table.text('serial').primary()
    table.jsonb('facts').notNullable()
    table.jsonb('disk')
    table.jsonb('digests').notNullable().defaultTo('[]')
    table.timestamp('at', { useTz: true }).notNullable()
  })
  await knex.schema.createTable('port_sights', (table) => {
    table.text('port').primary().references('ports.name')
    table.text('agent').notNullable()
    table.jsonb('facts')
    table.timestamp('at', { useTz: true }).notNullable().defaultTo(knex.fn.now())
  })
  await knex.schema.createTable('looks', (table) => {
    table.uuid('id').primary()
    table.text('port').notNullable().references('ports.name')
    table.jsonb('digests').notNullable()
    table.jsonb('found')
    table.timestamp('at', { useTz: true }).notNullable().defaultTo(knex.fn.now())
  })
  await knex.schema.createTable('agents', (table) => {
    table.text('id').primary()
    table.timestamp('until', { useTz: true }).notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  for (const name of ['agents', 'looks', 'port_sights', 'devices'])
    await knex.schema.dropTable(name)
}
