/** The routes of a job, read once for sheet and margin, and the numbers that tie their findings together. */
import type { FindingShown, RouteShown } from '@plain-slate/api'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useRead } from '../../server/query.ts'
import { useJob } from '../job.ts'

/** What makes two findings the same one. */
const keyOf = ({ rule, code, facts }: FindingShown): string =>
  `${rule} ${code} ${JSON.stringify(facts)}`
/** Findings of which something is to be said: those with a condition or a mark. They carry a number. */
export const isTold = ({ verdict, marks }: FindingShown): boolean =>
  verdict !== 'fits' || marks.length > 0

/** Numbers of told findings, in the order in which the routes bring them. */
export function numbersOf(routes: readonly Pick<RouteShown, 'findings'>[]) {
  const keys = [...new Set(routes.flatMap(({ findings }) => findings.filter(isTold).map(keyOf)))]
  return (finding: FindingShown): number | undefined => {
    const at = keys.indexOf(keyOf(finding))
    return at < 0 ? undefined : at + 1
  }
}

/** Routes, the one in hand (picked, or else the first), and every finding on the package that is asked about. */
export function useRoutes() {
  const route = useRoute()
  const { params, job } = useJob()
  const known = computed(() => (job.data.value?.family ?? null) !== null)
  const read = useRead('jobRoutes', () => ({ params: params.value }), {
    enabled: known,
    keep: true,
  })
  const about = computed(() => String(route.query['why'] ?? ''))
  const why = useRead('jobWhy', () => ({ params: params.value, query: { package: about.value } }), {
    enabled: computed(() => known.value && about.value !== ''),
    keep: true,
  })
  const asked = computed(() => (about.value === '' ? undefined : why.data.value))
  const inHand = computed(() => {
    const data = read.data.value
    return data?.routes.find((one) => one.route === data.picked) ?? data?.routes[0]
  })
  /** Something was said or read since: those that are shown may not be any more. */
  const isOld = computed(() => (job.data.value?.version ?? 0) > (read.data.value?.version ?? 0))
  const number = computed(() => numbersOf(read.data.value?.routes ?? []))
  return { read, asked, inHand, isOld, number, known }
}
