import { QueryClient, QueryObserver } from '@tanstack/vue-query'
import { describe, expect, it } from 'vitest'
import { renew } from './query.ts'

const turn = () => new Promise((resolve) => setTimeout(resolve))

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
    for (let n = 0; n < 5; n += 1) renew(client, 'slip')
    await turn()
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

  it('fetch at once where nothing is under way, and leave alone what they are not about', async () => {
    const { client, begun, stop } = slowRead()
    await turn()
    begun[0]?.(1)
    await turn()
    renew(client, 'session')
    await turn()
    expect(begun).toHaveLength(1)
    renew(client, 'slip')
    await turn()
    expect(begun).toHaveLength(2)
    stop()
  })
})
