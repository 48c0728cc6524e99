/** Handlers of the shelf. */
import type { Contract } from '@plain-slate/api'
import { ok, refuse } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import type { House } from '../house.ts'
import { listArchives } from '../tables/shelf.ts'
import { provenPackages, rowOf } from './shelf.ts'
import { takeIn } from './take-in.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function shelfHandlers(house: House) {
  const shelf: Of<'shelf'> = async () => {
    const [packages, archives] = await Promise.all([
      provenPackages(house.db),
      listArchives(house.db),
    ])
    return ok({ packages: packages.map(rowOf), archives })
  }
  const shelfPackage: Of<'shelfPackage'> = async ({ params: { id } }) => {
    const found = (await provenPackages(house.db)).find(({ manifest }) => manifest.id === id)
    if (found === undefined) return refuse({ code: 'package.unknown', facts: { id } })
    return ok({ ...rowOf(found), claims: [...found.proof.claims] })
  }
  const shelve: Of<'shelve'> = ({ query, actor, req }) =>
    takeIn(house, {
      name: query.name,
      bytes: Number(req.headers['content-length'] ?? 0),
      source: req,
      published: query.sha256,
      by: actor?.id ?? null,
    })
  return { shelf, shelfPackage, shelve }
}
