/** What goes wrong in hands as a walk does it: a key, a part, a like device in the port, a hub, a cell that is out. */
import type { StandInAct } from '@plain-slate/api'
import type { Break } from './act.ts'
import type { LawShop, Told } from './law-shop.ts'
import type { Memory } from './memory.ts'

/** Turns it on for an even number and off for an odd one, where it can be. */
export async function breaks(
  shop: LawShop,
  { serial, port }: Memory,
  { act, n }: { readonly act: Break; readonly n: number },
): Promise<Told | undefined> {
  const devices = await shop.devices()
  const mine = devices.find((one) => one.serial === serial)
  const on = n % 2 === 0
  const pick = <One>(list: readonly One[]): One | undefined => list[n % Math.max(1, list.length)]
  const done = (what: StandInAct) => shop.hands(what)
  switch (act) {
    case 'key': {
      const key = pick(mine?.chord ?? [])?.key
      return key === undefined ? undefined : done({ kind: 'key', serial, key, works: !on })
    }
    case 'tear': {
      const part = pick(mine?.parts ?? [])
      return part === undefined ? undefined : done({ kind: 'tear', serial, part })
    }
    case 'like':
      return done({ kind: 'like', serial })
    case 'other-in': {
      /* Somebody plugs one like it in where it hangs. */
      const like = (all: typeof devices) =>
        all.find(
          (one) => one.port === null && one.model === mine?.model && one.name.startsWith('like '),
        )
      if (like(devices) === undefined) await done({ kind: 'like', serial })
      const other = like(await shop.devices())
      if (other === undefined) return undefined
      await done({ kind: 'unplug', serial })
      return done({ kind: 'plug', serial: other.serial, port })
    }
    case 'hub':
      return done({ kind: 'hub', port, on })
    case 'cell-out':
      return done({ kind: on ? 'cell-out' : 'cell-in', serial })
    case 'permit':
      return done({ kind: 'permit', serial, given: !on })
  }
}
