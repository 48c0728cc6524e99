import type { Hit } from '@plain-slate/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { agentSees } from '../testing/agent.ts'
import { openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'

let bench: Bench
let juno: Browser
beforeAll(async () => {
  bench = await openBench()
  juno = await bench.at('Juno')
})
afterAll(() => bench.close())

const found = async (q: string) =>
  (await juno.get<Hit[]>(`/api/find?q=${encodeURIComponent(q)}`)).body.map((hit) =>
    hit.kind === 'slip' ? hit.number : hit.title,
  )

describe('the find box', () => {
  it('finds a slip by its number, first of all', async () => {
    expect((await found('0417'))[0]).toBe('0417')
    expect((await found('417'))[0]).toBe('0417')
  })

  it('finds slips and people by what they are called', async () => {
    expect(await found('tavi')).toEqual(['Tavi Renn'])
    expect(await found('H2K 14')).toEqual(['0417'])
  })

  it('finds a device that answers by its serial number, model and build, with its port', async () => {
    await agentSees(bench.address, 'P2', {})
    expect(await found('77f31')).toEqual(['TRN4490077F31'])
    expect(await found('0zc brak-h2k')).toContain('TRN4490077F31')
    await agentSees(bench.address, 'P2', null)
    expect(await found('77f31')).toEqual([])
  })

  it('finds nothing for nothing', async () => {
    expect(await found('')).toEqual([])
    expect(await found('zzz')).toEqual([])
  })
})
