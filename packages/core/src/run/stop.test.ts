import { describe, expect, it } from 'vitest'
import type { Command } from '../command/command.ts'
import { stopWaits } from './stop.ts'

const put: Command = {
  kind: 'put',
  mode: 'loader',
  partition: 'main',
  offset: 0,
  size: 100,
  image: 'a',
}
const restart: Command = { kind: 'restart', to: 'loader' }
const waits = (more: object = {}, command: Command = put, held = true) =>
  stopWaits({ asked: 1, met: 0, heard: 0, ...more }, { held, command })

describe('a stop', () => {
  it('waits to be heard, then for the piece, and for nothing where none is going over', () => {
    expect(waits()).toBe('to-be-heard')
    expect(waits({ heard: 1 })).toBe('piece')
    expect(waits({ heard: 1 }, restart)).toBe('moment')
  })

  it('waits for whoever drives next where nobody does', () => {
    expect([waits({}, put, false), waits({ heard: 1 }, put, false)]).toEqual([
      'nobody-drives',
      'nobody-drives',
    ])
  })

  it('that was met, or taken back by a later word, waits for nothing; a second one does again', () => {
    expect(waits({ met: 1, heard: 1 })).toBeUndefined()
    expect(waits({ asked: 2, met: 1, heard: 1 })).toBe('to-be-heard')
  })
})
