import type { Knex } from 'knex'

/**
 * When a device's table and digests were read, apart from when it was last seen: what it gave on an earlier
 * visit proves nothing of what stands on it now.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('devices', (table) => {
    table.timestamp('evidence_at', { useTz: true })
  })
  await knex('devices').update({ evidence_at: knex.ref('at') })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('devices', (table) => table.dropColumn('evidence_at'))
}
