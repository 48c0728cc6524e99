import type { Knex } from 'knex'

/**
 * The shelf, told whole: entries of archives in a table of their own, refused ones with their rule;
 * digests that came from outside an archive, with who says so; what was removed and may be put back; room
 * that uploads under way have been promised. A package is known by its id and the digest of the archive
 * its manifest lies in: the same id with other bytes is another package.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('archive_entries', (table) => {
    table.uuid('archive').notNullable().references('archives.id').onDelete('CASCADE')
    table.integer('n').notNullable()
    table.text('name').notNullable()
    table.bigInteger('place').notNullable()
    table.bigInteger('size').notNullable()
    table.text('sha256').notNullable()
    table.text('refused')
    table.primary(['archive', 'n'])
    table.index(['archive', 'name'])
  })
  await knex.raw(`
    insert into archive_entries (archive, n, name, place, size, sha256)
    select archives.id, one.n - 1, one.entry->>'name', (one.entry->>'offset')::bigint,
           (one.entry->>'size')::bigint, one.entry->>'sha256'
    from archives, jsonb_array_elements(archives.entries) with ordinality as one (entry, n)`)
  await knex.schema.createTable('outside_digests', (table) => {
    table.bigIncrements('id')
    table.text('archive').notNullable().index()
    table.text('sha256').notNullable()
    table.text('source').notNullable()
    table.text('place').notNullable()
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
  })
  await knex.raw(`
    insert into outside_digests (archive, sha256, source, place, by, at)
    select sha256, published, 'person', '', by, at from archives where published is not null`)
  await knex.schema.createTable('uploads', (table) => {
    table.uuid('id').primary()
    table.bigInteger('bytes').notNullable()
    table.bigInteger('got').notNullable().defaultTo(0)
    table.timestamp('seen_at', { useTz: true }).notNullable()
  })
  await knex.schema.alterTable('archives', (table) => {
    table.integer('entry_count').notNullable().defaultTo(0)
    table.boolean('end_mark').notNullable().defaultTo(true)
    table.jsonb('behind')
    table.text('stamp')
    table.timestamp('removed_at', { useTz: true })
  })
  await knex.raw('update archives set entry_count = jsonb_array_length(entries) + refused_entries')
  await knex.schema.alterTable('archives', (table) => {
    table.dropColumn('entries')
    table.dropColumn('published')
  })
  await knex.schema.alterTable('packages', (table) => {
    table.dropPrimary()
    table.primary(['id', 'first_archive'])
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    delete from packages where first_archive <>
      (select max(other.first_archive) from packages other where other.id = packages.id)`)
  await knex.schema.alterTable('packages', (table) => {
    table.dropPrimary()
    table.primary(['id'])
  })
  await knex.schema.alterTable('archives', (table) => {
    table.jsonb('entries').notNullable().defaultTo('[]')
    table.text('published')
  })
  await knex.raw(`
    update archives set entries = coalesce((
      select jsonb_agg(jsonb_build_object('name', name, 'offset', place, 'size', size, 'sha256', sha256)
                       order by n)
      from archive_entries where archive = archives.id and refused is null), '[]'::jsonb)`)
  await knex.raw(`
    update archives set published =
      (select sha256 from outside_digests where archive = archives.sha256 order by id desc limit 1)`)
  await knex.schema.alterTable('archives', (table) => {
    for (const name of ['entry_count', 'end_mark', 'behind', 'stamp', 'removed_at'])
      table.dropColumn(name)
  })
  for (const name of ['uploads', 'outside_digests', 'archive_entries'])
    await knex.schema.dropTable(name)
}
