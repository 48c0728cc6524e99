// @vitest-environment jsdom
/** What hands can do with a simulated device, as the Bench offers it. */
import type { StandInDevice } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { mounted } from '../testing/mounted.ts'
import HandsDevice from './HandsDevice.vue'

const NORMAL = { id: 'normal', name: 'normal mode', kind: 'system' } as const
const OFF = { id: 'off', name: 'off', kind: 'off' } as const

describe('the hands of a simulated device', () => {
  const device: StandInDevice = {
    serial: 'TRN4490077F31',
    name: 'handheld 14',
    model: 'BRAK-H2K',
    port: 'P2',
    mode: NORMAL,
    battery: 71,
    cellOut: false,
    permission: true,
    removable: true,
    installs: [],
    asks: null,
    canReset: false,
    account: false,
    lockSwitch: null,
    pace: 20,
    chord: [
      { key: 'scan', works: true },
      { key: 'power', works: false },
    ],
    parts: ['main'],
    keys: [{ to: OFF, say: 'Hold power.', held: null }],
  }
  const shownOf = (more: Partial<StandInDevice>, may = true) =>
    mounted(HandsDevice, { device: { ...device, ...more }, ports: ['P1', 'P2'], may })
  const labels = async (more: Partial<StandInDevice>) =>
    (await shownOf(more)).shown.findAll('button').map((one) => one.text())

  it('are offered as the device is', async () => {
    const plugged = [
      'Unplug',
      'Take the battery out',
      'Withdraw the link permission',
      'Keys: to off',
      'Battery at 80 %',
      'Mend power',
      'Lay a like device beside it',
    ]
    expect(await labels({})).toEqual(plugged)
    expect(await labels({ port: null })).toEqual(plugged.slice(1))
    expect(await labels({ cellOut: true })).toContain('Put the battery in')
    expect(await labels({ removable: false })).not.toContain('Take the battery out')
    expect(await labels({ canReset: true })).toContain(
      'Reset it: everything of the customer’s goes',
    )
    expect(await labels({ lockSwitch: false })).toContain('Let its lock be opened')
    expect(await labels({ account: true })).toContain('Sign out of its account')
    expect(await labels({ account: true, mode: OFF })).not.toContain('Sign out of its account')
    expect(await labels({ chord: [] })).not.toContain('Mend power')
    expect(await labels({ keys: [] })).not.toContain('Keys: to off')
    expect(await labels({ permission: false })).toContain('Give the link permission')
    expect(await labels({ mode: OFF })).not.toContain('Withdraw the link permission')
  })

  it('break keys that work, and damage parts that it has', async () => {
    const lists = async (more: Partial<StandInDevice>) =>
      (await shownOf(more)).shown
        .findAll('select')
        .map((one) => one.findAll('option').map((option) => option.text()))
    expect(await lists({})).toEqual([
      ['', 'scan'],
      ['', 'main'],
    ])
    expect(await lists({ chord: [], parts: [] })).toEqual([])
  })

  it('tell where it is, and that it is away while it restarts', async () => {
    expect((await shownOf({})).shown.text()).toContain('at P2, normal mode, battery 71 %')
    expect((await shownOf({ mode: null })).shown.text()).toContain('restarting')
  })

  it('plug it in where it is asked, and nobody who may not touches it', async () => {
    const { shown, asked: calls } = await shownOf({ port: null })
    await shown.find('select').setValue('P1')
    expect(calls[0]?.body).toEqual({ kind: 'plug', serial: 'TRN4490077F31', port: 'P1' })
    const { shown: barred } = await shownOf({}, false)
    expect(barred.findAll('button, select')).toEqual([])
  })
})
