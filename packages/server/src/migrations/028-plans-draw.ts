/**
 * What plans may draw of a charge, and the floor of their house. Of plans taken before, what they needed is taken for what
 * they draw: it is more, so that the gate asks for too much rather than too little.
 */
import type { Knex } from 'knex'

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    update slip_plans set made =
      jsonb_set(jsonb_set(made, '{folds,draws}', made #> '{folds,needs}'), '{floor}', 'null'::jsonb)
     where made #> '{folds,draws}' is null and made #> '{folds,needs}' is not null`)
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`update slip_plans set made = (made #- '{folds,draws}') - 'floor'`)
}
