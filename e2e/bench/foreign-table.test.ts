/**
 * Devices whose partition table Debian's own tools made, in a whole shop of real processes: read, planned, met, written and
 * proven like any other, whether anybody read the table or not; one that is not what was planned for stops, by name.
 */
import type { RunShown } from '@plain-slate/api'
import type { Table } from '@plain-slate/core'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterEach, describe, expect, it } from 'vitest'
import type { Foreign } from '../tables/foreign.ts'
import { byParted, bySgdisk } from '../tables/foreign.ts'
import { LEAVES, linesOf } from './lines.ts'
import { LEAD, WholeShop, newestPackage } from './whole-shop.ts'

type TableOf = (diskBytes: number, ours: Table) => Foreign

let shop: WholeShop
afterEach(() => shop.close())

async function shopWith(tableOf: TableOf): Promise<void> {
  const { databaseUrl } = await cloneTemplate('demo')
  shop = new WholeShop(databaseUrl, 0)
  await shop.open(undefined, [LEAD], { tables: { [LEAD]: tableOf } })
}

const isOver = ({ state }: RunShown) => state === 'ended' || state === 'stopped'

/** A slip of the device, whose table is read before it is planned. */
async function slipWithTableRead(): Promise<string> {
  const draft = { device: 'Brakken H2K', model: 'BRAK-H2K', intent: 'update' }
  const { number } = await shop.call<{ number: string }>('POST', '/api/slips', draft)
  const at = `/api/slips/${number}`
  await shop.read(`${at}/read`, 'P2', `${at}/job`)
  await shop.call('POST', `${at}/lines`, linesOf(LEAVES))
  await shop.read(`${at}/read`, 'P2', `${at}/job`, true)
  return number
}

async function endOf(its?: string): Promise<RunShown> {
  const { number, digest } = await shop.ready('P2', its)
  const { id } = await shop.call<RunShown>('POST', `/api/slips/${number}/start`, { digest })
  return shop.follow(id, 'it is over', isOver)
}

describe('a device whose table somebody else made', () => {
  it.each([
    ['sgdisk, from its usual sector on, with gaps', bySgdisk({ first: 2048, gap: 7 }), false],
    ['sgdisk, from an odd sector on, read before', bySgdisk({ first: 63 }), true],
    ['parted, read before', byParted({ first: 34 }), true],
  ] as const)(
    'by %s, is written and proven in a whole shop',
    async (_who, tableOf, isRead) => {
      await shopWith(tableOf)
      const { marks: customer } = shop.flash(LEAD)
      const ended = await endOf(isRead ? await slipWithTableRead() : undefined)
      expect([ended.word, ended.why]).toEqual(['done', null])
      const { wrong, marks } = shop.flash(LEAD)
      expect({ wrong: wrong(newestPackage()), marks }).toEqual({ wrong: [], marks: customer })
    },
    120_000,
  )

  it('with a partition of another size than its family and package give stops before a byte is written, and names it', async () => {
    const wider = (parts: Table['partitions']) =>
      parts.map((one) => (one.name === 'cache' ? { ...one, sectors: one.sectors + 8 } : one))
    await shopWith((bytes, ours) =>
      bySgdisk({ first: 2048 })(bytes, { ...ours, partitions: wider(ours.partitions) }),
    )
    const { marks: customer } = shop.flash(LEAD)
    const stopped = await endOf()
    expect([stopped.state, stopped.why?.code]).toEqual(['stopped', 'other-table'])
    expect(JSON.stringify(stopped.why)).toContain('cache')
    expect(JSON.stringify(stopped.why)).toContain('resized')
    expect(stopped.parts.every(({ kept }) => kept === 0)).toBe(true)
    expect(shop.flash(LEAD).marks).toEqual(customer)
  }, 120_000)
})
