/** Handlers of the bench. */
import type { Contract } from '@plain-slate/api'
import { ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Handler } from '../edge/mount.ts'
import { someone } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import { hangRuns, listCables, moveCable } from '../tables/bench.ts'
import { tell } from '../tables/news.ts'
import { doByHand, listHands } from './hands.ts'
import { askLook, lookShown } from '../devices/looks.ts'
import { layCable, layPort, takeCableOut, takePortOut } from './lay.ts'
import { showBench } from './show.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function benchHandlers(workshop: Workshop) {
  const bench: Of<'bench'> = async () => ok(await showBench(workshop))
  const hands: Of<'hands'> = async () => ok(await listHands(workshop.config))
  const handsAct: Of<'handsAct'> = async ({ body }) => {
    const done = await doByHand(workshop.config, body)
    await tell(workshop.db, 'bench', 'serial' in body ? body.serial : body.kind, 1)
    return done
  }
  const cableMove: Of<'cableMove'> = async ({ body: { cable, port }, actor }) => {
    const moved = await workshop.db.transaction(async (trx) => {
      const before = await moveCable(trx, cable, port)
      if (before === undefined) return false
      await hangRuns(trx)
      const facts = { cable, from: before.from ?? '', to: port ?? '' }
      await enter(workshop, trx, { by: actor?.id ?? null, act: 'cable.moved', facts })
      await tell(trx, 'bench', cable, 1)
      return true
    })
    if (!moved) return refuse({ code: 'port.unknown', facts: { port: port ?? cable } })
    return ok(await listCables(workshop.db))
  }
  const ports = async () => (await showBench(workshop)).ports
  const portAdd: Of<'portAdd'> = async (call) => {
    const done = await layPort(workshop, call.body, someone(call))
    return done.ok ? ok(await ports()) : done
  }
  const portStrike: Of<'portStrike'> = async (call) => {
    const done = await takePortOut(workshop, call.params.port, someone(call))
    return done.ok ? ok(await ports()) : done
  }
  const cableAdd: Of<'cableAdd'> = async (call) => {
    const done = await layCable(workshop, call.body, someone(call))
    return done.ok ? ok(await listCables(workshop.db)) : done
  }
  const cableStrike: Of<'cableStrike'> = async (call) => {
    const done = await takeCableOut(workshop, call.params.cable, someone(call))
    return done.ok ? ok(await listCables(workshop.db)) : done
  }
  const portRead: Of<'portRead'> = async ({ params: { port }, actor }) => {
    const look = await askLook(workshop, { port, slip: null, deep: false, by: actor?.id ?? null })
    return look.ok ? ok(lookShown(look.value)) : look
  }
  const laying = { portAdd, portStrike, cableAdd, cableStrike }
  return { bench, hands, handsAct, cableMove, ...laying, portRead }
}
