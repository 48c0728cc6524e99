/** Mounting a part of the page as it stands in it: with its stores, a query client, somebody signed in. */
import type { Face } from '@plain-slate/api'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { onTestFinished } from 'vitest'
import type { Component } from 'vue'
import { h } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { useSessionStore } from '../people/session.ts'

export type Asked = { readonly method: string; readonly path: string; readonly body: unknown }

/** The component library's parts, as plain as they come: by render functions, since no templates are compiled here. */
const plain = (name: string, tag: string, attrs: object = {}): readonly [string, Component] => [
  name,
  {
    name,
    setup:
      (_, { slots }) =>
      () =>
        h(tag, attrs, slots['default']?.()),
  },
]
export const PLAIN = Object.fromEntries([
  plain('VBtn', 'button', { type: 'button' }),
  plain('VTextField', 'input'),
  plain('VTextarea', 'textarea'),
  plain('VSelect', 'select'),
  plain('VAutocomplete', 'select'),
  plain('VCheckbox', 'input', { type: 'checkbox' }),
])

type Where = {
  readonly role?: Face['role']
  readonly at?: string
  readonly answer?: object | ((path: string) => object)
}

/** Mounts with somebody of a role signed in; what is asked of the server is kept, and answered as told. */
export async function mounted(
  component: Component,
  props: object,
  { role = 'lead', at = '/bench/P2', answer = {} }: Where = {},
) {
  const asked: Asked[] = []
  globalThis.fetch = (input, init) => {
    const body: unknown = typeof init?.body === 'string' ? JSON.parse(init.body) : undefined
    asked.push({ method: init?.method ?? 'GET', path: input as string, body })
    const says: object = typeof answer === 'function' ? answer(input as string) : answer
    return Promise.resolve(new Response(JSON.stringify(says), { status: 200 }))
  }
  const pinia = createPinia()
  const page = { render: () => h('div') }
  const routes = [
    { path: '/slips/:number/:stage', component: page },
    { path: '/:place/:port', component: page },
    { path: '/:place', component: page },
  ]
  const router = createRouter({ history: createMemoryHistory(), routes })
  await router.push(at)
  const queryClient = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const shown = mount(component, {
    props: { ...props },
    global: {
      plugins: [[VueQueryPlugin, { queryClient }], pinia, router],
      stubs: PLAIN,
    },
  })
  /* Nothing that a test showed is left to be drawn again in another's. */
  onTestFinished(() => {
    shown.unmount()
    queryClient.clear()
  })
  useSessionStore(pinia).person = { id: 'ilse', name: 'Ilse Maro', initials: 'IM', role }
  await flushPromises()
  const refetched = async () => {
    await queryClient.refetchQueries()
    await flushPromises()
  }
  return { shown, asked, router, refetched }
}
