import type { Knex } from 'knex'

/** Personal text beside the book: erasing `body` and `salt` withdraws it, and the chain still holds. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('personal_texts', (table) => {
    table.uuid('id').primary()
    table.text('slip').notNullable().index()
    table.binary('salt')
    table.text('body')
    table.text('digest').notNullable()
    table.timestamp('withdrawn_at', { useTz: true })
  })
  await knex.schema.createTable('book_texts', (table) => {
    table.integer('seq').notNullable().references('book_entries.seq')
    table.text('name').notNullable()
    table.uuid('text_id').notNullable().references('personal_texts.id')
    table.primary(['seq', 'name'])
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('book_texts')
  await knex.schema.dropTable('personal_texts')
}
