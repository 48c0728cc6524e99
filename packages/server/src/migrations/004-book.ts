import type { Knex } from 'knex'

/**
 * The book: the canonical entry as text (what was hashed), its columns for filtering, and a trigger
 * that refuses every change to what stands.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('book_entries', (table) => {
    table.integer('seq').primary()
    table.timestamp('at', { useTz: true }).notNullable()
    table.uuid('by')
    table.text('act').notNullable().index()
    table.text('slip').index()
    table.text('canonical').notNullable()
    table.text('hash').notNullable()
  })
  await knex.raw(`
    create function book_only_grows() returns trigger language plpgsql as $$
    begin raise exception 'the book only grows'; end $$;
    create trigger book_only_grows before update or delete on book_entries
      for each row execute function book_only_grows();
    create trigger book_is_not_emptied before truncate on book_entries
      for each statement execute function book_only_grows();
  `)
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('book_entries')
  await knex.raw('drop function book_only_grows()')
}
