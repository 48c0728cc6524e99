// @vitest-environment jsdom
/** The Bench says of its computer what it tells, with the remedy, and plays what hands do with it. */
import type { ComputerShown } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { mounted } from '../testing/mounted.ts'
import Computers from './Computers.vue'
import HandsComputer from './HandsComputer.vue'

type Driver = ComputerShown['drivers'][number]
const driver = (more: Partial<Driver> = {}): Driver => ({
  id: 'tarn',
  name: 'the handheld driver',
  maker: 'Brakken',
  modes: ['the loader', 'rescue'],
  is: 'there',
  version: 4,
  least: 2,
  newest: 4,
  ...more,
})
const computer = (more: Partial<ComputerShown> = {}): ComputerShown => ({
  agent: 'a',
  bench: null,
  ports: ['P1', 'P2'],
  version: '0.1.0',
  same: true,
  freeMiB: 4096,
  told: { rivals: [], powerSaving: [], hubs: [], sleepMinutes: null },
  drivers: [driver()],
  ...more,
})
const told = (more: Partial<NonNullable<ComputerShown['told']>>) =>
  computer({ told: { rivals: [], powerSaving: [], hubs: [], sleepMinutes: null, ...more } })
const says = async (one: ComputerShown) =>
  (await mounted(Computers, { computers: [one] }, {})).shown.text()

describe('what the computer tells', () => {
  it.each<[string, Partial<Driver>, string]>([
    ['the newest', {}, 'version 4, its maker’s newest'],
    ['an older one', { is: 'old', version: 2 }, 'version 2, 2 versions behind; it is of use'],
    ['one of no use', { is: 'too-old', version: 1 }, 'version 1 is of no use; install 4, or 2'],
    ['none', { is: 'missing', version: null }, 'missing: nothing is heard in these modes'],
  ])('of a driver: %s', async (_, more, sentence) => {
    const text = await says(computer({ drivers: [driver(more)] }))
    expect(text).toContain(sentence)
    expect(text).toContain('the loader, rescue')
  })

  it('of which bench it is, where that has a name', async () => {
    expect(await says(computer())).toContain('This bench’s computer')
    expect(await says(computer({ bench: 'the back room' }))).toContain(
      'The computer of the back room',
    )
  })

  it('of programs, sleep, room and its agent', async () => {
    const plain = await says(computer())
    expect(plain).toContain('No other program holds a port.')
    expect(plain).toContain('It does not go to sleep by itself.')
    expect(plain).toContain('4096 MiB or more are free for journals.')
    const rival = await says(told({ rivals: [{ port: 'P2', program: 'a sync tool' }] }))
    expect(rival).toContain('a sync tool holds P2: close it')
    expect(rival).not.toContain('No other program')
    expect(await says(told({ powerSaving: ['P1'] }))).toContain('Power saving is on at P1')
    expect(await says(told({ hubs: ['P2'] }))).toContain('A hub lies before P2')
    expect(plain).not.toContain('A hub lies')
    expect(await says(told({ sleepMinutes: 15 }))).toContain('It goes to sleep after 15 min')
    expect(await says(computer({ version: '0.0.9', same: false }))).toContain(
      'Its agent is of version 0.0.9, and the server is not',
    )
    expect(await says(computer({ told: null, drivers: [] }))).toContain(
      'Nobody tells of its drivers',
    )
  })
})

describe('hands on the computer', () => {
  it('put a driver off and on, and let another program hold a port', async () => {
    const { shown, asked } = await mounted(HandsComputer, { computer: computer() }, {})
    await shown.find('select').setValue('')
    await shown.findAll('button')[0]?.trigger('click')
    await flushPromises()
    expect(asked.map(({ body }) => body)).toEqual([
      { kind: 'driver', driver: 'tarn', version: null, at: 'P1' },
      { kind: 'rival', port: 'P1', program: 'another program' },
    ])
  })

  it('are not offered where nobody tells of it', async () => {
    const { shown } = await mounted(HandsComputer, { computer: computer({ told: null }) }, {})
    expect(shown.find('select').exists()).toBe(false)
  })
})
