/**
 * The shop's clock for what is elapsed, as a function of the database: the machine's time since its boot (proc(5), uptime,
 * to 10 ms), counted from a moment that is put down once a boot. That moment is never before a lease that an earlier boot
 * gave, whatever the machine's clock said then. Only the cluster's own superuser may read the machine's files.
 */
import { asClient } from './prepare.ts'

const UPTIME = `split_part(pg_catalog.pg_read_file('/proc/uptime'), ' ', 1)::float8 * interval '1 second'`
const BOOT = `trim(both e'\\n ' from pg_catalog.pg_read_file('/proc/sys/kernel/random/boot_id'))`

/** Puts the machine's own clock behind `steady_now()`. Safe to run at every start. */
export const keepSteady = (superuser: string): Promise<void> =>
  asClient(superuser, async (client) => {
    await client.query(`
      insert into plain_slate.steady_boots (boot, origin)
      select ${BOOT}, greatest(now(),
          (select max(until) from plain_slate.runs), (select max(until) from plain_slate.agents),
          (select max(moved_at) from plain_slate.runs)) - ${UPTIME}
      on conflict (boot) do nothing;
      create or replace function plain_slate.steady_now() returns timestamptz
        language sql stable security definer set search_path = pg_catalog as $body$
          select coalesce(
            (select origin + ${UPTIME} from plain_slate.steady_boots where boot = ${BOOT}), now())
        $body$;
      alter function plain_slate.steady_now() owner to current_user;
    `)
  })
