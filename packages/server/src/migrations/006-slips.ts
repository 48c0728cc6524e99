import type { Knex } from 'knex'

/** The heads of slips; what is personal in them is a reference to a personal text. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('slips', (table) => {
    table.text('number').primary()
    table.text('device').notNullable()
    table.text('model')
    table.text('intent').notNullable()
    table.text('promise').notNullable()
    table.text('stage').notNullable()
    table.text('state').notNullable().index()
    table.timestamp('due', { useTz: true })
    table.timestamp('opened_at', { useTz: true }).notNullable()
    table.uuid('opened_by').notNullable().references('people.id')
    table.uuid('customer_text').references('personal_texts.id')
    table.uuid('words_text').references('personal_texts.id')
    table.integer('version').notNullable().defaultTo(1)
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('slips')
}
