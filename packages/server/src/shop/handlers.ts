/** Handlers of the shop, its bench, finding, events, health and the contract itself. */
import type { Contract } from '@plain-slate/api'
import { everyRoute } from '@plain-slate/api'
import { isoOf, ok, refuse } from '@plain-slate/core'
import { docsPage } from '../docs/page.ts'
import { openApi } from '../docs/openapi.ts'
import { WRITTEN } from '../edge/mount.ts'
import type { Handler } from '../edge/mount.ts'
import { stream } from '../events/stream.ts'
import { find as findAll } from '../find/find.ts'
import type { Workshop } from '../base/workshop.ts'
import { readiness } from '../tables/database.ts'
import { readShop } from '../tables/shop.ts'
import { nameCopies, showCopies } from './copies.ts'
import { changeHouse, showHouse } from './house.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function shopHandlers(workshop: Workshop) {
  const shop: Of<'shop'> = async () => {
    const now = isoOf(await workshop.clock.now())
    const found = await readShop(workshop.db)
    if (found === undefined)
      return ok({ name: '', place: '', zone: 'UTC', now, demo: false, empty: true })
    const { name, place, zone, demo } = found
    return ok({ name, place, zone, now, demo, empty: false })
  }
  const find: Of<'find'> = async ({ query }) => ok(await findAll(workshop.db, query.q))
  const house: Of<'house'> = async () => ok(await showHouse(workshop.db))
  const houseChange: Of<'houseChange'> = ({ body, actor }) => changeHouse(workshop, body, actor)
  const copies: Of<'copies'> = async () => ok(await showCopies(workshop))
  const copiesName: Of<'copiesName'> = ({ body, actor }) => nameCopies(workshop, body.folder, actor)
  const rights: Of<'rights'> = () => Promise.resolve(ok(rightsTable()))

  const events: Of<'events'> = ({ actor, req, res }) => {
    if (actor === undefined) throw new Error('events reached by nobody')
    const streaming = stream(workshop, actor, req, res)
    return Promise.resolve(streaming ? ok(WRITTEN) : refuse({ code: 'events.full' as const }))
  }
  const health: Of<'health'> = () =>
    Promise.resolve(ok({ alive: true as const, version: workshop.version }))

  const ready: Of<'ready'> = async ({ res }) => {
    const state = await readiness(workshop.db)
    const whole = state.database && state.tables
    if (!whole) res.status(503)
    return ok({ ready: whole, ...state })
  }
  const openapi: Of<'openapi'> = () => Promise.resolve(ok(openApi(workshop.version)))
  const docs: Of<'docs'> = ({ res }) => {
    res.type('html').send(docsPage())
    return Promise.resolve(ok(WRITTEN))
  }
  const kept = { copies, copiesName }
  return { shop, house, houseChange, ...kept, find, rights, events, health, ready, openapi, docs }
}

/** Every route with the role it needs: the declared table of rights. */
export function rightsTable() {
  return everyRoute().map(([, { method, path, needs, summary }]) => ({
    method,
    path,
    needs,
    summary,
  }))
}
