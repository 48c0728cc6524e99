/**
 * The shop's clock for what is elapsed, as a function of the database: the machine's time since its boot (proc(5), uptime,
 * to 10 ms), counted from a moment that is put down once a boot. That moment is never before a lease that an earlier boot
 * gave, whatever the machine's clock said then. Only the cluster's own superuser may read the machine's files.
 */
import { asClient } from './prepare.ts'

const UPTIME = `split_part(pg_catalog.pg_read_file('/proc/uptime'), ' ', 1)::float8 * interval '1 second'`
const BOOT = `trim(both e'\\n ' from pg_catalog.pg_read_file('/proc/sys/kernel/random/boot_id'))`

/** A role without the right, or a machine that has no such files. */
const CANNOT: readonly unknown[] = ['42501', '58P01']

/**
 * Puts the machine's own clock behind `steady_now()`, in whichever schema the tables lie: of several the one that this role
 * works in. Safe to run at every start.
 * Answers whether this role may: a PostgreSQL of one's own may not let it, and elapsed time goes by its time of day then.
 */
export const keepSteady = (url: string): Promise<boolean> =>
  asClient(url, async (client) => {
    const { rows } = await client.query<{ schema: string }>(
      `select relnamespace::regnamespace::text as schema from pg_class
         where relname = 'steady_boots' order by pg_table_is_visible(oid) desc limit 1`,
    )
    const schema = rows[0]?.schema ?? 'plain_slate'
    const set = `
      insert into ${schema}.steady_boots (boot, origin)
      select ${BOOT}, greatest(now(),
          (select max(until) from ${schema}.runs), (select max(until) from ${schema}.agents),
          (select max(moved_at) from ${schema}.runs)) - ${UPTIME}
      on conflict (boot) do nothing;
      create or replace function ${schema}.steady_now() returns timestamptz
        language sql stable security definer set search_path = pg_catalog as $body$
          select coalesce(
            (select origin + ${UPTIME} from ${schema}.steady_boots where boot = ${BOOT}), now())
        $body$;
      alter function ${schema}.steady_now() owner to current_user;
    `
    try {
      await client.query(set)
      return true
    } catch (error) {
      if (CANNOT.includes((error as { code?: unknown }).code)) return false
      throw error
    }
  })
