/** What a slip's job rests on, as one mark: equal marks, equal jobs. */
import type { Database } from './database.ts'
import { LOOK_IS_OLD } from './looks.ts'
import { STEADY } from './steady.ts'

/**
 * Everything that `loadJob` reads, told by what changes with it: counts and newest ids of what only grows,
 * versions of what is changed, texts of what is small. A column that a job comes to rest on is added here.
 */
const MARK = `
  select current_database() || md5(concat_ws('|',
    (select concat_ws(',', version, stage, state) from slips where number = :number),
    (select concat_ws(',', count(*), max(id)) from slip_lines where slip = :number),
    (select concat_ws(',', count(*), max(id)) from slip_readings),
    (select concat_ws(',', id, state, state = 'looking' and ${LOOK_IS_OLD})
       from looks where slip = :number order by at desc limit 1),
    (select sum(version) from slips where state in ('open', 'waiting')),
    (select concat_ws(',', count(*), max(id)) from slip_tallies where slip = :number),
    (select concat_ws(',', count(*), max(id)) from slip_plans where slip = :number),
    (select concat_ws(',', count(*), sum(version), max(started_at), count(*) filter (where put_away))
       from runs),
    (select string_agg(concat_ws(',', port, agent, facts, odd), ';' order by port)
       from port_sights join agents on agents.id = agent where until > ${STEADY}),
    (select string_agg(concat_ws(',', id, computer), ';' order by id) from agents where until > ${STEADY}),
    (select concat_ws(',', count(*), max(at)) from devices),
    (select string_agg(concat_ws(',', name, port, note), ';' order by name) from cables),
    (select max(version) from house_rules),
    (select concat_ws(',', count(*), max(id)) from shelf_changes)
  )) as mark`

/** The mark of a slip's job now. */
export async function jobMark(db: Database, number: string): Promise<string> {
  const { rows } = (await db.raw(MARK, { number })) as { rows: { mark: string }[] }
  return rows[0]?.mark ?? ''
}
