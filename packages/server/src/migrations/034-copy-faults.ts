/** Why a copy failed, as a code with its facts: what stood there as a sentence is kept as one. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('copies', (table) => {
    table.jsonb('facts').notNullable().defaultTo('{}')
  })
  await knex('copies')
    .whereNotNull('why')
    .update({ facts: knex.raw("jsonb_build_object('says', why)"), why: 'other' })
}

export async function down(knex: Knex): Promise<void> {
  await knex('copies')
    .whereNotNull('why')
    .update({ why: knex.raw("coalesce(facts->>'says', why)") })
  await knex.schema.alterTable('copies', (table) => table.dropColumn('facts'))
}
