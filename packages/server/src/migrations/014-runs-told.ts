import type { Knex } from 'knex'

/**
 * When something last moved in a run, by the database's clock: silence is counted from there. A slip may be
 * opened at the shell, where nobody is signed in.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.timestamp('moved_at', { useTz: true })
  })
  await knex.schema.alterTable('slips', (table) => {
    table.setNullable('opened_by')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => {
    table.dropColumn('moved_at')
  })
}
