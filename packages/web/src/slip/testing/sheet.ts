/** A sheet of a slip as it stands in the page, with a server that tells what a test says. */
import type { Job, Slip } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import type { Component } from 'vue'
import type { Asked } from '../../testing/mounted.ts'
import { mounted } from '../../testing/mounted.ts'
import { slip } from './job.ts'

export type Says = {
  readonly job: Job
  readonly slip?: Slip
  /** Other answers by the end of their path. */
  readonly more?: Readonly<Record<string, object>>
  readonly role?: 'lead' | 'technician' | 'trainee'
  /** What the address asks for. */
  readonly query?: Readonly<Record<string, string>>
  /** The part of the page that it leads to. */
  readonly hash?: string
}
export const SHOP = {
  name: 'Ninebark',
  place: 'Gannet Quay',
  zone: 'UTC',
  demo: true,
  empty: false,
  now: '2026-10-15T14:22:00.000Z',
}

/** Mounts it; answers its headline, its text, and what was asked of the server. */
export async function sheet(component: Component, says: Says) {
  const answer = (path: string): object => {
    const end = path.split('/').at(-1) ?? ''
    if (says.more?.[end] !== undefined) return says.more[end]
    if (end === 'job' || end === 'lines' || end === 'read') return says.job
    if (end === 'shop') return SHOP
    if (/^\d+$/.test(end)) return says.slip ?? slip()
    return {}
  }
  const at = `/slips/0417/${says.job.at}?${new URLSearchParams(says.query).toString()}${says.hash ?? ''}`
  const made = await mounted(component, {}, { at, answer, role: says.role ?? 'lead' })
  await flushPromises()
  const { shown } = made
  return { ...made, h1: shown.find('h1').text(), text: shown.text() }
}
export const posted = (asked: readonly Asked[], end: string) =>
  asked.filter(({ method, path }) => method === 'POST' && path.endsWith(end))
