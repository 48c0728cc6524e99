import type { Knex } from 'knex'

/**
 * A row for every change of the shelf that what is judged by it rests on, put down by the database itself, in
 * the transaction that changed it. How many there are and which is the newest is the shelf's revision:
 * unlike a counter it needs no lock, and unlike a sequence it says nothing before it is committed.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('shelf_changes', (table) => {
    table.bigIncrements('id')
  })
  await knex.raw(`
    create function shelf_changed() returns trigger language plpgsql as $$
    begin insert into shelf_changes default values; return null; end $$;
    create trigger shelf_changed after insert or delete or update of state, removed_at, stamp
      on archives for each statement execute function shelf_changed();
    create trigger shelf_changed after insert or delete or update
      on packages for each statement execute function shelf_changed();
    create trigger shelf_changed after insert or delete or update
      on outside_digests for each statement execute function shelf_changed();
  `)
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['archives', 'packages', 'outside_digests'])
    await knex.raw(`drop trigger shelf_changed on ${table}`)
  await knex.raw('drop function shelf_changed()')
  await knex.schema.dropTable('shelf_changes')
}
