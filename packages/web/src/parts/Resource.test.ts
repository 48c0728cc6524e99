// @vitest-environment jsdom
import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it, vi } from 'vitest'
import type { DefineComponent } from 'vue'
import { h, ref } from 'vue'
import { Refused } from '../server/call.ts'
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
  const shown = mount(Resource as unknown as DefineComponent<object>, {
    props: { read, empty: (data: string[]) => data.length === 0 },
    slots: {
      default: ({ data }: { data: string[] }) => h('p', data.join(' ')),
      empty: () => h('p', 'nothing yet'),
    },
    global: { plugins: [createPinia()], stubs: PLAIN },
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

  it('keeps showing what was there when a later fetch fails', () => {
    const { shown } = show({ data: ref(['a']), error: ref(new Refused(trouble)) })
    expect(shown.text()).toContain('There is no slip')
    expect(shown.text()).toContain('a')
  })
})
