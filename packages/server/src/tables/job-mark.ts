/** What a slip's job rests on, part by part, as marks: equal marks, equal parts. */
import type { Database } from './database.ts'
import { LOOK_IS_OLD } from './looks.ts'
import { STEADY } from './steady.ts'

/**
 * Everything that `loadJob` reads, told by what changes with it: counts and newest ids of what only grows,
 * versions of what is changed, texts of what is small. A column that a job comes to rest on is added here.
 */
const MARKS = {
  slip: `(select concat_ws(',', version, stage, state) from slips where number = :number)`,
  lines: `(select concat_ws(',', count(*), max(id)) from slip_lines where slip = :number)`,
  readings: `(select concat_ws(',', count(*), max(id)) from slip_readings where slip = :number)`,
  look: `(select concat_ws(',', id, state, state = 'looking' and ${LOOK_IS_OLD})
            from looks where slip = :number order by at desc limit 1)`,
  tallies: `(select concat_ws(',', count(*), max(id)) from slip_tallies where slip = :number)`,
  plans: `(select concat_ws(',', count(*), max(id)) from slip_plans where slip = :number)`,
  others: `(select concat_ws(',', md5(string_agg(number, ',' order by number)),
              (select concat_ws(',', count(*), max(id)) from slip_readings))
              from slips where state in ('open', 'waiting'))`,
  runs: `(select concat_ws(',', count(*), sum(version), max(started_at),
            count(*) filter (where put_away)) from runs)`,
  ended: `(select concat_ws(',', count(*), max(ended_at)) from runs where state = 'ended')`,
  sights: `(select md5(string_agg(concat_ws(',', port, agent, facts, odd), ';' order by port))
              from port_sights join agents on agents.id = agent where until > ${STEADY})`,
  computers: `(select md5(string_agg(concat_ws(',', id, computer), ';' order by id))
                 from agents where until > ${STEADY})`,
  devices: `(select concat_ws(',', count(*), max(at)) from devices)`,
  cables: `(select md5(string_agg(concat_ws(',', name, port, note), ';' order by name)) from cables)`,
  house: `(select max(version)::text from house_rules)`,
  shelf: `(select concat_ws(',', count(*), max(id)) from shelf_changes)`,
} as const
export type JobPart = keyof typeof MARKS
export type JobMarks = Readonly<Record<JobPart, string | null>>

const QUERY = `select ${Object.entries(MARKS)
  .map(([part, mark]) => `${mark} as ${part}`)
  .join(', ')}`

/** The marks of a slip's job now. */
export async function jobMarks(db: Database, number: string): Promise<JobMarks> {
  const { rows } = (await db.raw(QUERY, { number })) as { rows: JobMarks[] }
  const [marks] = rows
  if (marks === undefined) throw new Error('a query without a row')
  return marks
}
