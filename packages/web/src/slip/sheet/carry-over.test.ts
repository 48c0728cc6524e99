// @vitest-environment jsdom
/** An owner's image brought to a slip: what it may go into, what is asked, what is said where it may not. */
import type { Archive } from '@plain-slate/api'
import { describe, expect, it, vi } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import { job } from '../testing/job.ts'
import CarryOver from './CarryOver.vue'

const archive = (more: Partial<Archive> = {}): Archive => ({
  id: '4b1c0f5e-0d4e-4c52-9a70-7b0f6b0f0001',
  name: 'own-kernel.tar',
  sha256: 'a'.repeat(64),
  bytes: 10_240,
  done: 10_240,
  state: 'whole',
  refusal: null,
  entries: 1,
  refusedEntries: 0,
  endMark: true,
  behind: null,
  package: null,
  trouble: null,
  by: null,
  at: '2026-10-15T14:22:00.000Z',
  removedAt: null,
  ...more,
})
const route = (name: string, rules: readonly string[] = []) => ({
  route: name,
  package: name,
  title: name,
  findings: rules.map((rule) => ({ rule })),
})
const STATES = { known: 0, whole: 0, published: 0, refuted: 0 }
const ROUTES = [route('newest'), route('newest'), route('with its own', ['package.carried'])]

async function shownFor({ carries = true, archives = [archive()] } = {}) {
  const told = job('firmware')
  const family = told.family === null ? null : { ...told.family, carries }
  const answer = (path: string) => {
    if (path.includes('/shelf')) return { packages: [], states: STATES, catalogues: [], archives }
    if (!path.endsWith('/carry')) return { ...told, family, run: null }
    return told
  }
  const { shown, asked, refetched } = await mounted(
    CarryOver,
    { routes: ROUTES },
    { at: '/slips/0414/firmware', answer },
  )
  await refetched()
  if (!shown.find('button').exists()) return { shown, asked, refetched }
  await shown.find('button').trigger('click')
  const wanted = archives.length === 1
  await vi.waitFor(() =>
    expect(shown.find(wanted ? 'select' : '[role="status"]').exists()).toBe(true),
  )
  return { shown, asked, refetched }
}

describe('an image of the owner’s own', () => {
  it('is offered where a lock of the family can be opened, and into packages of the maker’s alone', async () => {
    expect((await shownFor({ carries: false })).shown.find('button').exists()).toBe(false)
    const { shown } = await shownFor()
    const [which, into] = shown.findAll('select')
    expect(which?.findAll('option').map((one) => one.text())).toEqual(['', 'own-kernel.tar'])
    expect(into?.findAll('option').map((one) => one.text())).toEqual(['', 'newest'])
  })

  it('is none that a package lies in, that was refused, or that was taken off the shelf', async () => {
    const archives = [
      archive({ package: 'a' }),
      archive({ state: 'refused' }),
      archive({ removedAt: '2026-10-15T14:22:00.000Z' }),
    ]
    const { shown } = await shownFor({ archives })
    expect(shown.find('select').exists()).toBe(false)
    expect(shown.text()).toContain('No archive without a package')
  })

  it('is held against the package that was chosen', async () => {
    const { shown, asked, refetched } = await shownFor()
    const submit = shown.find('form button')
    expect(submit.attributes('disabled')).toBeDefined()
    const [which, into] = shown.findAll('select')
    await which?.setValue(archive({}).id)
    await into?.setValue('newest')
    await shown.find('form').trigger('submit')
    await refetched()
    const sent = asked.find(({ path }) => path.endsWith('/carry'))
    expect(sent?.body).toEqual({ archive: archive({}).id, package: 'newest' })
    expect(shown.find('form').exists()).toBe(false)
  })
})
