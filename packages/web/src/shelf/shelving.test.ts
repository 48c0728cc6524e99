// @vitest-environment jsdom
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it } from 'vitest'
import { createApp } from 'vue'
import { troubleIn } from '../server/call.ts'
import type { Send } from './shelving.ts'
import { useShelving } from './shelving.ts'

function opened() {
  const app = createApp({})
  const pinia = createPinia()
  app.use(VueQueryPlugin, { queryClient: new QueryClient() }).use(pinia)
  return app.runWithContext(() => useShelving(pinia))
}
const file = (name: string, size = 100) => new File([new Uint8Array(size)], name)

describe('files on their way to the shelf', () => {
  it('go one after the other, with what has left counted', async () => {
    const shelving = opened()
    const going: string[] = []
    let letGo: () => void = () => undefined
    const send: Send = (one, sent) => {
      going.push(one.name)
      sent(40)
      return new Promise((resolve) => (letGo = () => resolve({ archive: one.name })))
    }
    shelving.shelve([file('a.tar'), file('b.tar')], send)
    await flushPromises()
    expect(going).toEqual(['a.tar'])
    expect(shelving.list.map(({ state, sent }) => [state, sent])).toEqual([
      ['sending', 40],
      ['waiting', 0],
    ])
    letGo()
    await flushPromises()
    expect(shelving.list.map(({ state }) => state)).toEqual(['arrived', 'sending'])
    letGo()
    await flushPromises()
    expect(shelving.list.map(({ state }) => state)).toEqual(['arrived', 'arrived'])
  })

  it('that are refused say why, and the next one goes all the same', async () => {
    const shelving = opened()
    const refusal = {
      code: 'archive.room',
      sentence: 'There is no room for a.tar.',
      kept: '',
      remedy: '',
      requestId: 'r',
    }
    const send: Send = (one) =>
      Promise.resolve(
        one.name === 'a.tar'
          ? { trouble: troubleIn(JSON.stringify(refusal)) }
          : { archive: 'archive-of-b' },
      )
    shelving.shelve([file('a.tar'), file('b.tar')], send)
    await flushPromises()
    expect(shelving.list.map(({ state, trouble }) => [state, trouble?.sentence])).toEqual([
      ['refused', 'There is no room for a.tar.'],
      ['arrived', undefined],
    ])
    expect(shelving.list.map(({ archive }) => archive)).toEqual([undefined, 'archive-of-b'])
    shelving.clear()
    expect(shelving.list).toEqual([])
  })

  it('tells an empty file, or a folder, before anything is sent', async () => {
    const shelving = opened()
    shelving.shelve([file('folder', 0)])
    await flushPromises()
    expect(shelving.list[0]?.trouble?.sentence).toBe('folder is empty, or is a folder.')
  })

  it('takes no answer at all for the server being away', () => {
    expect(troubleIn('<html>').code).toBe('offline')
  })
})
