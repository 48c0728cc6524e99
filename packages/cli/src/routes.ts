/**
 * `routes`: the roads of one device, best first, with what each costs; where none is open, what would open one.
 * `why --package ID`: every rule's finding on one package, the gravest first, with what would mend it and who may
 * overrule it.
 */
import type { BlockedShown, Candidate, FindingShown, Judged } from '@plain-slate/api'
import { idOfKey } from '@plain-slate/core'
import { findingWords, movesWords } from '@plain-slate/texts'
import type { Args } from './args.ts'
import { WANTED, WANTED_FLAGS, readArgs } from './args.ts'
import { judged } from './fit.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { Cannot } from './cannot.ts'
import { serverOf } from './server.ts'

type Road = Judged['routes'][number]

export async function routes(args: readonly string[]): Promise<Outcome> {
  const { routes: roads, blocked, limit } = await judged(readArgs(args, WANTED, WANTED_FLAGS))
  const lines =
    roads.length === 0
      ? [say('routes.title.none'), ...blocked.flatMap(blockedLines)]
      : roads.map(routeLine)
  const text = [...lines, ...(limit ? [say('routes.limit')] : [])].join('\n')
  return { code: 0, text, json: { routes: roads, blocked, limit } }
}

function routeLine({ verdict, first, then, title, way, minutes, data, misses }: Road): string {
  const before =
    first.length === 0 ? '' : `${say('routes.first', { first: movesWords(say, first) })} `
  const after = then.length === 0 ? '' : `, ${say('routes.then', { then: movesWords(say, then) })}`
  const costs = say('what-if.costs', { minutes, fate: say(`fate.${data}`) })
  const missed = misses.map((one) => say(`routes.misses.${one}`)).join(', ')
  const amiss = missed === '' ? '' : `; ${say('routes.misses', { what: missed })}`
  return `${say(`verdict.${verdict}`).padEnd(15)} ${before}${title} ${say(`routes.way.${way}`)}${after}: ${costs}${amiss}`
}

/** What would have to be lifted for a way to a package. */
const blockedLines = ({ title, obstacles }: BlockedShown): readonly string[] => [
  say('routes.blocked.for', { title, n: obstacles.length }),
  ...obstacles.map(({ title: of, finding }) => `  ${of}: ${findingWords('en-GB', finding)}`),
]

export async function why(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, WANTED, WANTED_FLAGS)
  const { title, verdict, findings, nearest, package: key } = await judgedBy(read)
  const near =
    nearest === null || nearest === title ? [] : [say('routes.nearest', { title: nearest })]
  const lines = [`${title}: ${say(`verdict.${verdict}`)}`, ...findings.map(findingLine), ...near]
  return { code: 0, text: lines.join('\n'), json: { package: key, verdict, findings, nearest } }
}

type Why = Pick<Candidate, 'package' | 'title' | 'verdict' | 'findings'> & {
  readonly nearest: string | null
}

/** A package judged for a slip; without one for whatever is at a port. */
async function judgedBy(read: Args): Promise<Why> {
  const server = serverOf(read)
  const asked = read.needed('package')
  const number = read.option('slip')
  if (number !== undefined)
    return server.call('jobWhy', { params: { number }, query: { package: asked } })
  const { candidates, routes: roads } = await judged(read)
  const meant = candidates.filter((one) => one.package === asked || idOfKey(one.package) === asked)
  const [found] = meant
  if (found === undefined || meant.length > 1) throw new Cannot(say('cli.why.none', { asked }))
  return { ...found, nearest: roads[0]?.title ?? null }
}

const findingLine = (finding: FindingShown): string => {
  const by = finding.verdict === 'does-not-fit' ? ` ${say(`overrule.by.${finding.overruled}`)}` : ''
  return `  ${say(`verdict.${finding.verdict}`).padEnd(15)} ${findingWords('en-GB', finding)} (${finding.rule})${by}`
}
