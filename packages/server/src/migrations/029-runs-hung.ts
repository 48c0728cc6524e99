/**
 * The cables a run hung on before the one it hangs on now, each with how often its device was lost there: a run that goes
 * on at another port, or over another cable, leaves its losses with the cable that had them.
 */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`alter table runs add column hung jsonb not null default '[]'`)
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table runs drop column hung')
}
