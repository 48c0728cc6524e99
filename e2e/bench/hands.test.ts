/** What goes wrong in hands, as the shell and the Bench offer it: what each does to a device, and to nothing else. */
import type { Bench, StandInDevice } from '@plain-slate/api'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { toolHere } from './tool.ts'
import { LEAD, OTHER, WholeShop, until } from './whole-shop.ts'

let shop: WholeShop
beforeAll(async () => {
  shop = new WholeShop((await cloneTemplate('demo')).databaseUrl, 0)
  await shop.open()
}, 120_000)
afterAll(() => shop.close())

const hands = (...args: readonly string[]) => toolHere(['hands', ...args, '--data', shop.folder])
const devices = () => shop.call<StandInDevice[]>('GET', '/api/bench/hands')
const device = async (serial: string) => {
  const found = (await devices()).find((one) => one.serial === serial)
  if (found === undefined) throw new Error(`no device ${serial}`)
  return found
}

describe('hands', () => {
  it('charge it to any percent, up where it charges and down anywhere', async () => {
    const other = (await device(OTHER)).battery
    expect((await hands('charge', '7F31', '93')).code).toBe(0)
    expect([(await device(LEAD)).battery, (await device(OTHER)).battery]).toEqual([93, other])
    expect((await hands('charge', '7F31', '7')).code).toBe(0)
    expect((await device(LEAD)).battery).toBe(7)
    /* In its loader it does not charge. */
    await hands('keys', '7F31', 'off')
    await hands('keys', '7F31', 'loader')
    const codes = [await hands('charge', '7F31', '8'), await hands('charge', '7F31', '3')]
    expect(codes.map(({ code }) => code)).toEqual([1, 0])
    expect((await device(LEAD)).battery).toBe(3)
    const odd = await hands('charge', '7F31', '300')
    expect([odd.code, odd.err]).toEqual([
      2,
      expect.stringContaining('“300” is nothing that charge'),
    ])
  })

  it('break a key: no chord that holds it leads anywhere until it is mended', async () => {
    const mode = async () => (await device(OTHER)).mode?.id
    await hands('keys', '1C04', 'off')
    await hands('break-key', '1C04', 'scan')
    const dead = await hands('keys', '1C04', 'loader')
    expect([dead.code, dead.err, await mode()]).toEqual([1, expect.stringContaining('scan'), 'off'])
    expect((await hands('keys', '1C04', 'rescue')).code).toBe(0)
    await hands('keys', '1C04', 'off')
    await hands('mend-key', '1C04', 'scan')
    expect((await hands('keys', '1C04', 'loader')).code).toBe(0)
    expect(await mode()).toBe('loader')
  })

  it('damage a part, and neither the customer’s data nor what is its own', async () => {
    const { parts } = await device(OTHER)
    const before = shop.flash(OTHER).marks
    const bytes = () => shop.flash(OTHER)
    expect((await hands('tear', '1C04', 'main')).code).toBe(0)
    expect(bytes().marks).toEqual(before)
    for (const never of ['customer', 'calib', 'table']) {
      expect(parts).not.toContain(never)
      expect((await hands('tear', '1C04', never)).code).toBe(1)
    }
  })

  it('lay a like device beside it, under a serial of its own', async () => {
    const before = (await devices()).length
    await hands('like', '1C04')
    const all = await devices()
    const twin = all.find(({ name }) => name.startsWith('like '))
    expect([all.length, twin?.model, twin?.port]).toEqual([
      before + 1,
      (await device(OTHER)).model,
      null,
    ])
    expect(twin?.serial).not.toBe(OTHER)
    /* It is there after the bench was begun again. */
    await shop.kill('stand-ins')
    await shop.begin('stand-ins')
    expect((await devices()).map(({ serial }) => serial)).toContain(twin?.serial)
  })

  it('put a hub between: several hang there, and one answers after the other', async () => {
    const seen = async () => (await shop.port('P2')).seen?.serial
    await hands('keys', '7F31', 'off')
    await hands('charge', '7F31', '80')
    await hands('keys', '7F31', 'loader')
    await hands('plug', '7F31', 'P2')
    await until('it is seen', async () => (await seen()) === LEAD)
    const full = await hands('plug', '1C04', 'P2')
    expect([full.code, full.err]).toEqual([1, expect.stringContaining(LEAD)])
    expect((await hands('hub', 'P2', 'on')).code).toBe(0)
    await hands('unplug', '1C04')
    expect((await hands('plug', '1C04', 'P2')).code).toBe(0)
    const computer = async () => (await shop.call<Bench>('GET', '/api/bench')).computers[0]?.told
    await until(
      'the computer tells of it',
      async () => (await computer())?.hubs.includes('P2') === true,
    )
    /* The first is off, and the other in its loader: that one answers in its place. */
    await hands('keys', '7F31', 'off')
    await until('the other is seen', async () => (await seen()) === OTHER)
    await hands('hub', 'P2', 'off')
    const ports = (await devices()).filter(({ port }) => port === 'P2')
    expect(ports).toHaveLength(1)
  })
})
