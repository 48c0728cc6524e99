/** Runs that a permit was given in, found without reading the commands of all the others. */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `create index runs_of_permits on runs (id)
      where state = 'ended' and commands @> '[{"kind": "permit"}]'`,
  )
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop index runs_of_permits')
}
