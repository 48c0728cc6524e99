/** A run that is taken up finds its bytes where they are, and asks the shelf for nothing that it knows. */
import type { Command } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { placesNow } from './places.ts'

const put = (image: string): Command => ({
  kind: 'put',
  mode: 'loader',
  partition: 'main',
  offset: 0,
  size: 1,
  image,
})
const place = { archive: 'an archive', offset: 512, size: 1 }
const shelved = (image: string) => ({
  proof: { claims: [], state: 'published' as const, places: new Map([[image, place]]) },
})

describe('the places of a run', () => {
  it('are those it was begun with, and the shelf is not asked', async () => {
    const places = [{ image: 'a', ...place, offset: 7 }]
    const asked = () => Promise.reject(new Error('asked'))
    expect(await placesNow({ commands: [put('a')], places }, asked)).toEqual(places)
  })

  it('that it does not say are the shelf’s, each once; what nobody has stays unsaid', async () => {
    const commands = [put('a'), put('b'), put('b'), put('c')]
    const places = [{ image: 'a', ...place, offset: 7 }]
    const shelf = () => Promise.resolve([shelved('a'), shelved('b')])
    expect(await placesNow({ commands, places }, shelf)).toEqual([
      ...places,
      { image: 'b', ...place },
    ])
  })
})
