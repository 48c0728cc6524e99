/**
 * Server state through one library: reading a route of the contract, changing something, and what is
 * fetched again when news of a topic come in.
 */
import type { RouteName, Topic } from '@plain-slate/api'
import { QueryClient, keepPreviousData, useMutation, useQuery } from '@tanstack/vue-query'
import type { MaybeRefOrGetter, Ref } from 'vue'
import { computed, toValue } from 'vue'
import type { Answer, InputOf } from './call.ts'
import { Refused, call } from './call.ts'

/** Everything that is read of a slip's job. */
const JOB = [
  'job',
  'jobReady',
  'jobPlan',
  'jobOtherwise',
  'jobRoutes',
  'jobWhy',
  'jobCase',
  'jobWay',
  'jobProof',
] as const

/** Which reads each topic makes old. */
const READS: Readonly<Record<Topic, readonly RouteName[]>> = {
  slip: ['slips', 'slip', 'slipHistory', 'find', 'bench', ...JOB],
  book: ['book', 'slipHistory'],
  people: ['people', 'faces', 'find', 'tokens'],
  bench: ['bench', 'hands', 'judge', ...JOB],
  run: ['run', 'runs', 'family', 'job', 'jobProof'],
  shelf: ['shelf', 'shelfPackage', 'judge', 'plan', ...JOB],
  work: [],
  shop: ['shop', 'house', 'copies', 'families', 'judge', 'plan', ...JOB],
  session: ['sessionShow'],
}

const RETRIES = 2

export function makeQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 30_000,
        refetchOnWindowFocus: true,
        retry: (count, error) => isAway(error) && count < RETRIES,
      },
      mutations: { networkMode: 'always' },
    },
  })
}

/** A refusal will not change by asking again; no answer may. */
function isAway(error: unknown): boolean {
  return error instanceof Refused && ['offline', 'database.away'].includes(error.trouble.code)
}

/** Something read from the server: what is there, what went wrong, whether it is on its way. */
export type Read<Data> = {
  readonly data: Readonly<Ref<Data | undefined>>
  readonly error: Readonly<Ref<Error | null>>
  readonly isPending: Readonly<Ref<boolean>>
  readonly isFetching: Readonly<Ref<boolean>>
  readonly refetch: () => unknown
}

/** Reads a route and keeps it fresh; `input` may be a getter that follows the address. */
export function useRead<Name extends RouteName>(
  name: Name,
  input: MaybeRefOrGetter<InputOf<Name>> = {},
  options: {
    readonly enabled?: MaybeRefOrGetter<boolean>
    readonly keep?: boolean
    /** Asked again after so many ms: for what changes by itself, as when a lease runs out. */
    readonly every?: number
  } = {},
): Read<Answer<Name>> {
  const query = useQuery({
    queryKey: computed(() => [name, toValue(input)]),
    queryFn: () => call(name, toValue(input)) as Promise<unknown>,
    enabled: computed(() => toValue(options.enabled) ?? true),
    ...(options.every === undefined ? {} : { refetchInterval: options.every }),
    ...(options.keep === true ? { placeholderData: keepPreviousData } : {}),
  })
  return { ...query, data: query.data as Ref<Answer<Name> | undefined> }
}

/** Changes something by a route; `topics` are fetched again after it. */
export function useChange<Name extends RouteName>(name: Name) {
  return useMutation<Answer<Name>, Error, InputOf<Name>>({
    mutationFn: (input) => call(name, input),
  })
}

/** Fetches again what a topic made old. */
export function renew(client: QueryClient, topic: Topic): void {
  for (const name of READS[topic]) void refresh(client, name)
}

/** Reads that are fetched once more when the fetch under way has ended. */
const waiting = new WeakMap<QueryClient, Set<RouteName>>()

/**
 * Fetches a read again. One that is under way is let end first: news that come faster than answers would
 * otherwise cancel one fetch after the other, and nothing would ever be shown.
 */
async function refresh(client: QueryClient, name: RouteName): Promise<void> {
  const filter = { queryKey: [name] }
  const names = waiting.get(client) ?? new Set<RouteName>()
  waiting.set(client, names)
  if (names.has(name)) return
  if (client.isFetching(filter) > 0) {
    names.add(name)
    await client.invalidateQueries(filter, { cancelRefetch: false })
    names.delete(name)
  }
  await client.invalidateQueries(filter)
}
