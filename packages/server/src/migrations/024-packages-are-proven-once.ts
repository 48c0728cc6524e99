import type { Knex } from 'knex'

/**
 * What is proven of a package stands beside it, and is made again when a volume of it changes: `proof` holds the
 * claims, where its images lie and which volumes are here; null until it was proven. By `models` and `images` a
 * device finds what concerns it. A package that only a catalogue told of has no archive here: `catalogue` names it.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('catalogues', (table) => {
    table.increments('id')
    table.text('depot').notNullable()
    table.integer('number').notNullable()
    table.text('issued').notNullable()
    table.text('expires').notNullable()
    table.integer('packages').notNullable()
    table.text('key_name').notNullable()
    table.uuid('by').references('people.id')
    table.timestamp('at', { useTz: true }).notNullable()
    table.unique(['depot', 'number'])
  })
  await knex.schema.alterTable('packages', (table) => {
    table.text('family').notNullable().defaultTo('')
    table.specificType('models', 'text[]').notNullable().defaultTo('{}')
    table.specificType('images', 'text[]').notNullable().defaultTo('{}')
    table.specificType('volumes', 'text[]').notNullable().defaultTo('{}')
    table.text('state').notNullable().defaultTo('known')
    table.jsonb('proof')
    table.integer('catalogue').references('catalogues.id').index()
    table.index(['family'])
  })
  for (const column of ['models', 'images', 'volumes'])
    await knex.raw(`create index packages_${column} on packages using gin (${column})`)
  await knex.raw(`
    update packages set
      family = manifest->>'family',
      models = array(select distinct jsonb_path_query(manifest, '$.targets[*].model') #>> '{}'),
      images = array(select distinct jsonb_path_query(manifest, '$.images[*].sha256') #>> '{}'),
      volumes = first_archive || array(
        select jsonb_path_query(manifest, '$.archives[1 to last].sha256') #>> '{}')`)
}

export async function down(knex: Knex): Promise<void> {
  await knex('packages').whereNotNull('catalogue').delete()
  await knex.schema.alterTable('packages', (table) => {
    for (const column of ['family', 'models', 'images', 'volumes', 'state', 'proof', 'catalogue'])
      table.dropColumn(column)
  })
  await knex.schema.dropTable('catalogues')
}
