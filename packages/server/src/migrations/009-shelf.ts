import type { Knex } from 'knex'

/** Archives that came in, and the packages whose manifests lay in them. Bytes are in the vault. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('archives', (table) => {
    table.uuid('id').primary()
    table.text('name').notNullable()
    table.text('sha256').notNullable().index()
    table.bigInteger('bytes').notNullable()
    table.bigInteger('done').notNullable().defaultTo(0)
    table.text('state').notNullable()
    table.jsonb('refusal')
    table.jsonb('entries').notNullable().defaultTo('[]')
    table.integer('refused_entries').notNullable().defaultTo(0)
    table.text('package')
    table.text('trouble')
    table.text('published')
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
  })
  await knex.schema.createTable('packages', (table) => {
    table.text('id').primary()
    table.jsonb('manifest').notNullable()
    table.text('first_archive').notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('packages')
  await knex.schema.dropTable('archives')
}
