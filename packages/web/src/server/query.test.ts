import { QueryClient, QueryObserver } from '@tanstack/vue-query'
import { describe, expect, it } from 'vitest'
import { GATHER_MS, know, renew } from './query.ts'

const turn = () => new Promise((resolve) => setTimeout(resolve))

/** Until news that came in are gathered. */
const gathered = () => new Promise((resolve) => setTimeout(resolve, 2 * GATHER_MS))

/** A read of the job whose answers come when they are let through. */
function slowRead() {
  const client = new QueryClient()
  const begun: ((answer: number) => void)[] = []
  const queryFn = () => new Promise<number>((resolve) => begun.push(resolve))
  const observer = new QueryObserver(client, { queryKey: ['job'], queryFn, retry: false })
  const stop = observer.subscribe(() => undefined)
  return { client, begun, stop, data: () => client.getQueryData(['job']) }
}

describe('news', () => {
  it('that come faster than answers let one through, and are followed by one more', async () => {
    const { client, begun, stop, data } = slowRead()
    await turn()
    for (let n = 0; n < 5; n += 1) {
      renew(client, 'slip')
      await gathered()
    }
    expect(begun).toHaveLength(1)
    begun[0]?.(1)
    await turn()
    expect(data()).toBe(1)
    await turn()
    expect(begun).toHaveLength(2)
    begun[1]?.(2)
    await turn()
    expect([data(), begun.length]).toEqual([2, 2])
    stop()
  })

  it('fetch where nothing is under way, and leave alone what they are not about', async () => {
    const { client, begun, stop } = slowRead()
    await turn()
    begun[0]?.(1)
    await turn()
    renew(client, 'session')
    await gathered()
    expect(begun).toHaveLength(1)
    renew(client, 'slip')
    await gathered()
    expect(begun).toHaveLength(2)
    stop()
  })

  it('of one act are fetched once, after one’s own act was answered', async () => {
    const { client, begun, stop } = slowRead()
    await turn()
    begun[0]?.(1)
    await turn()
    let answer: (() => void) | undefined
    const act = client.getMutationCache().build(client, {
      mutationFn: () => new Promise<void>((resolve) => (answer = resolve)),
    })
    const acted = act.execute(undefined)
    for (const topic of ['slip', 'bench', 'run'] as const) renew(client, topic)
    await gathered()
    expect(begun).toHaveLength(1)
    answer?.()
    await acted
    renew(client, 'slip')
    await gathered()
    expect(begun).toHaveLength(2)
    begun[1]?.(2)
    await gathered()
    expect(begun).toHaveLength(2)
    stop()
  })

  it('that an act answered stand, though a fetch that was begun before ends after it', async () => {
    const { client, begun, stop } = slowRead()
    const input = { params: { number: '0417' } }
    const queryKey = ['job', input]
    let old: ((answer: number) => void) | undefined
    const queryFn = () => new Promise<number>((resolve) => (old = resolve))
    const unsubscribe = new QueryObserver(client, { queryKey, queryFn }).subscribe(() => undefined)
    await turn()
    await know(client, 'job', input, 2 as never)
    old?.(1)
    await turn()
    expect(client.getQueryData(queryKey)).toBe(2)
    expect(begun).toHaveLength(1)
    unsubscribe()
    stop()
  })
})
