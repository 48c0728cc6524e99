import { describe, expect, it } from 'vitest'
import type { Command } from '../command/command.ts'
import { facts0417 } from '../testing/devices.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import type { JournalEntry } from './journal.ts'
import { followed, placeOf } from './journal.ts'
import type { RunEvent, Turn } from './run.ts'
import { begin, reduce, takeUp } from './run.ts'

const SERIAL = 'TRN4490077F31'
const put: Command = {
  kind: 'put',
  mode: 'loader',
  partition: 'main',
  offset: 0,
  size: 4096,
  image: 'aa',
}
const readBack: Command = {
  kind: 'digest',
  mode: 'loader',
  partition: 'main',
  size: 4096,
  image: 'aa',
}
const toLoader: Command = { kind: 'restart', to: 'loader' }
const facts = (more: Partial<DeviceFacts> = {}): DeviceFacts =>
  facts0417({ build: 'H2.0ZC.r4', release: 4, ...more })
const promised: Command = {
  kind: 'facts',
  expect: { build: 'H2.0ZC.r4', release: 4, loaderVersion: 6, floor: 5 },
}

/** Events one after the other from a turn. */
const tell = (turn: Turn, ...events: readonly RunEvent[]): Turn =>
  events.reduce<Turn>((at, event) => reduce(at.state, event), turn)
const start = (...commands: readonly Command[]) => begin(SERIAL, 3, commands)
const durable: RunEvent = { kind: 'durable' }
const orders = (turn: Turn) => turn.orders.map((order) => order.kind)
const phase = (turn: Turn) =>
  turn.state.phase.kind === 'stopped' ? turn.state.phase.why.kind : turn.state.phase.kind

describe('a run', () => {
  it('writes an intention down before it sends, and what was done before it goes on', () => {
    const first = start(put, readBack)
    expect(first.orders).toEqual([
      { kind: 'journal', entry: { kind: 'intend', command: 0, epoch: 3 } },
    ])
    const sent = tell(first, durable)
    expect(sent.orders).toEqual([{ kind: 'send', command: put }])
    const done = tell(sent, { kind: 'done', evidence: { is: 'kept' } })
    expect(done.orders).toEqual([
      { kind: 'journal', entry: { kind: 'done', command: 0, evidence: { is: 'kept' } } },
    ])
    expect(tell(done, durable).orders).toEqual([
      { kind: 'journal', entry: { kind: 'intend', command: 1, epoch: 3 } },
    ])
  })

  it('sends nothing while its journal is not durable, whatever the device says', () => {
    const early = tell(start(put), { kind: 'done', evidence: { is: 'kept' } }, { kind: 'lost' })
    expect([orders(early), phase(early)]).toEqual([[], 'writing-down'])
  })

  it('ends after its last command, and says nothing more', () => {
    const ended = tell(start(put), durable, { kind: 'done', evidence: { is: 'kept' } }, durable)
    expect([phase(ended), orders(ended)]).toEqual(['ended', []])
    expect(orders(tell(ended, durable, { kind: 'lost' }))).toEqual([])
  })

  it('stops at a digest that is not the image’s, naming the partition', () => {
    const wrong = tell(start(readBack), durable, { kind: 'digest', image: 'bb' })
    expect(wrong.state.phase).toEqual({
      kind: 'stopped',
      why: { kind: 'not-equal', partition: 'main' },
    })
    expect(phase(tell(start(readBack), durable, { kind: 'digest', image: 'aa' }))).toBe(
      'writing-down',
    )
  })

  it.each([
    ['build', { build: 'H2.0ZB.r4' }],
    ['release', { release: 3 }],
    ['loader', { loaderVersion: 7 }],
    ['floor', { floor: 6 }],
    ['outcome', { limits: ['no-radio' as const] }],
  ])('is not as promised when the %s is another', (_what, change) => {
    const told = (more: Partial<DeviceFacts>) =>
      phase(tell(start(promised), durable, { kind: 'facts', facts: facts(more) }))
    expect(told(change)).toBe('not-as-promised')
    expect(told({})).toBe('writing-down')
    expect(told({ mode: 'normal' })).toBe('writing-down')
  })

  it('stops after the piece that is on its way, and at once with the link gone', () => {
    const asked = tell(start(put, readBack), durable, { kind: 'stop' })
    expect([phase(asked), asked.state.stopping]).toEqual(['doing', true])
    const after = tell(asked, { kind: 'done', evidence: { is: 'kept' } }, durable)
    expect([phase(after), after.state.next]).toEqual(['asked', 1])
    expect(phase(tell(start(put), durable, { kind: 'lost' }, { kind: 'stop' }))).toBe('asked')
  })

  const hands: Command = { kind: 'person', ask: 'enter', text: '' }
  it.each([
    ['a restart whose device does not come', toLoader],
    ['a meeting whose device does not come', { kind: 'meet', mode: 'loader' } as const],
    ['hands that nobody says are done', hands],
    ['a digest that takes its time', readBack],
  ])('stops at once in %s: nothing is being written', (_what, command) => {
    const asked = tell(start(command, put), durable, { kind: 'stop' })
    expect([phase(asked), asked.state.next, orders(asked)]).toEqual(['asked', 0, []])
  })

  it('sends nothing that was only written down when a stop came', () => {
    const asked = tell(start(put), { kind: 'stop' })
    expect(phase(asked)).toBe('writing-down')
    expect([phase(tell(asked, durable)), orders(tell(asked, durable))]).toEqual(['asked', []])
  })

  it('that is over hears no stop', () => {
    const ended = tell(start(put), durable, { kind: 'done', evidence: { is: 'kept' } }, durable, {
      kind: 'stop',
    })
    expect(phase(ended)).toBe('ended')
  })
})

describe('a command in doubt', () => {
  const lost = (...commands: readonly Command[]) =>
    tell(start(...commands), durable, { kind: 'lost' })
  const met = (turn: Turn, more: Partial<DeviceFacts> = {}) =>
    tell(turn, { kind: 'met', facts: facts(more) })

  it('waits for the device to be met, and never goes on with another', () => {
    expect(orders(lost(put))).toEqual(['connect'])
    expect(phase(met(lost(put), { serial: 'TRN4490077F32' }))).toBe('wrong-device')
  })

  it('is looked at when it was a piece: whole is done, anything else is sent again', () => {
    const looking = met(lost(put))
    expect(looking.orders).toEqual([{ kind: 'look', command: put }])
    expect(orders(tell(looking, { kind: 'digest', image: 'aa' }))).toEqual(['journal'])
    expect(orders(tell(looking, { kind: 'digest', image: undefined }))).toEqual(['send'])
  })

  it('is done when it was a restart and the mode is the wanted one, else sent again', () => {
    expect(orders(met(lost(toLoader)))).toEqual(['journal'])
    expect(orders(met(lost(toLoader), { mode: 'normal' }))).toEqual(['send'])
  })

  it('that only reads is asked again', () => {
    expect(met(lost(readBack)).orders).toEqual([{ kind: 'send', command: readBack }])
  })

  it('lost again while it is looked at is in doubt again', () => {
    expect(orders(tell(met(lost(put)), { kind: 'lost' }))).toEqual(['connect'])
  })
})

describe('a run superseded by a higher epoch', () => {
  it('stops in whatever phase it is, and gives no more orders', () => {
    const refused: RunEvent = { kind: 'refused', code: 'old-epoch' }
    for (const turn of [
      start(put),
      tell(start(put), durable),
      tell(start(put), durable, { kind: 'lost' }),
    ])
      expect([phase(tell(turn, refused)), orders(tell(turn, refused))]).toEqual(['superseded', []])
  })

  it('while any other refusal stops the command it belongs to, and says which', () => {
    const floor = tell(start(put), durable, { kind: 'refused', code: 'floor' })
    expect(floor.state.phase).toEqual({ kind: 'stopped', why: { kind: 'refused', code: 'floor' } })
  })
})

describe('a journal', () => {
  const intend = (command: number): JournalEntry => ({ kind: 'intend', command, epoch: 1 })
  const done = (command: number): JournalEntry => ({
    kind: 'done',
    command,
    evidence: { is: 'kept' },
  })

  it('says which command comes next, and whether it is in doubt', () => {
    expect(placeOf([])).toEqual({ next: 0, inDoubt: false })
    expect(placeOf([intend(0)])).toEqual({ next: 0, inDoubt: true })
    expect(placeOf([intend(0), done(0)])).toEqual({ next: 1, inDoubt: false })
    expect(placeOf([intend(0), intend(0), done(0)])).toEqual({ next: 1, inDoubt: false })
  })

  it.each([
    [[done(0)], 0],
    [[intend(1)], 0],
    [[intend(0), done(1)], 1],
    [[intend(0), done(0), intend(0)], 2],
  ])(
    'that no run writes is followed up to the entry out of turn, and not taken up',
    (lines, at) => {
      expect(followed(lines).odd).toBe(at)
      const turn = takeUp(SERIAL, 9, [put, readBack], lines)
      expect(turn.state.phase).toEqual({ kind: 'stopped', why: { kind: 'journal', entry: at + 1 } })
      expect(turn.orders).toEqual([])
    },
  )

  it('taken up between commands goes on at the next, under the new epoch', () => {
    const turn = takeUp(SERIAL, 9, [put, readBack], [intend(0), done(0)])
    expect(turn.orders).toEqual([
      { kind: 'journal', entry: { kind: 'intend', command: 1, epoch: 9 } },
    ])
    expect(orders(takeUp(SERIAL, 9, [put, readBack], [intend(0)]))).toEqual(['connect'])
  })

  it('asks hands again where hands were asked: a device that is off answers nobody until they have acted', () => {
    const hands: Command = { kind: 'person', ask: 'enter', text: 'Hold both keys.' }
    const turn = takeUp(SERIAL, 9, [put, hands, promised], [intend(0), done(0), intend(1)])
    expect(turn.orders).toEqual([{ kind: 'send', command: hands }])
    expect(phase(turn)).toBe('doing')
    const said = tell(turn, { kind: 'done', evidence: { is: 'person', by: 'tavi' } })
    expect(orders(said)).toEqual(['journal'])
  })
})
