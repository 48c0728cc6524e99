// @vitest-environment jsdom
import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it, vi } from 'vitest'
import type { DefineComponent } from 'vue'
import { h, nextTick, ref } from 'vue'
import { Refused } from '../server/call.ts'
import { online } from '../server/online.ts'
import type { Read } from '../server/query.ts'
import { PLAIN } from '../testing/mounted.ts'
import Resource from './Resource.vue'

const trouble = {
  code: 'slip.unknown' as const,
  sentence: 'There is no slip 9999.',
  kept: 'Nothing was changed.',
  remedy: 'Look at the number again.',
  requestId: 'abcdef0123',
}

function show(more: Partial<Read<string[]>>) {
  const read: Read<string[]> = {
    data: ref(),
    error: ref(null),
    isPending: ref(false),
    isFetching: ref(false),
    refetch: vi.fn(),
    ...more,
  }
  const pinia = createPinia()
  const shown = mount(Resource as unknown as DefineComponent<object>, {
    props: { read, empty: (data: string[]) => data.length === 0 },
    slots: {
      default: ({ data }: { data: string[] }) => h('p', data.join(' ')),
      empty: () => h('p', 'nothing yet'),
    },
    global: { plugins: [pinia], stubs: PLAIN },
  })
  return { shown, read }
}

describe('something read from the server', () => {
  it('is fetching, empty, or there', () => {
    expect(show({ isPending: ref(true) }).shown.text()).toContain('Fetching')
    expect(show({ data: ref([]) }).shown.text()).toBe('nothing yet')
    expect(show({ data: ref(['a', 'b']) }).shown.text()).toBe('a b')
  })

  it('refused says what happened, what was kept and what to try, and can be asked again', async () => {
    const { shown, read } = show({ error: ref(new Refused(trouble)) })
    for (const part of [trouble.sentence, trouble.kept, trouble.remedy, 'abcdef01'])
      expect(shown.text()).toContain(part)
    await shown.find('button').trigger('click')
    expect(read.refetch).toHaveBeenCalledOnce()
  })

  it('says nothing of an outage that the frame tells already, and keeps what was there', async () => {
    const away = new Refused({ ...trouble, code: 'offline', sentence: 'No answer.' })
    const told = async (more: Partial<Read<string[]>>, answers: boolean) => {
      online.value = answers
      const { shown } = show(more)
      await nextTick()
      online.value = true
      return shown.text()
    }
    expect(await told({ error: ref(away), data: ref(['a']) }, false)).toBe('a')
    expect(await told({ error: ref(away) }, false)).toBe('Not fetched yet.')
    /* Told by nobody else it is told here; so is whatever else went wrong. */
    expect(await told({ error: ref(away) }, true)).toContain('No answer.')
    expect(await told({ error: ref(new Refused(trouble)) }, false)).toContain('no slip')
  })

  it('keeps showing what was there when a later fetch fails', () => {
    const { shown } = show({ data: ref(['a']), error: ref(new Refused(trouble)) })
    expect(shown.text()).toContain('There is no slip')
    expect(shown.text()).toContain('a')
  })
})
