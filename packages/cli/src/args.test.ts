import { describe, expect, it } from 'vitest'
import { readArgs, wantedOf } from './args.ts'
import { main } from './main.ts'

describe('a command line', () => {
  it('gives files, options and flags, and the usual data folder', () => {
    const args = readArgs(['a.tar', '--port', 'P2', '--data-may-go'], ['port'], ['data-may-go'])
    expect([args.files, args.data, args.needed('port')]).toEqual([['a.tar'], 'data', 'P2'])
    expect(wantedOf(args)).toEqual({ intent: 'update', keepData: false })
    expect(readArgs(['--data', '/srv']).data).toBe('/srv')
  })

  it('says what is missing, and what is no option of this command', () => {
    expect(() => readArgs([], ['port']).needed('port')).toThrow(/needs --port/)
    expect(() => readArgs(['--speed', '9'])).toThrow(/--speed/)
    expect(() => readArgs(['--port'], ['port'])).toThrow(/--port/)
  })

  it('names the intents when there is none of that name', () => {
    expect(() => wantedOf(readArgs(['--intent', 'fix'], ['intent']))).toThrow(/restore, update/)
    expect(wantedOf(readArgs(['--intent', 'restore'], ['intent'])).intent).toBe('restore')
  })

  it('that names no command is answered with the usage and 2', async () => {
    expect(await main(['fly'])).toBe(2)
    expect(await main(['shelve'])).toBe(2)
    expect(await main(['book'])).toBe(2)
  })
})
