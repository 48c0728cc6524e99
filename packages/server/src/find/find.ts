/** The find box over what the server knows. Each kind is one finder; a new kind is one more. */
import type { Hit } from '@plain-slate/api'
import { packageKey } from '@plain-slate/core'
import type { Database } from '../tables/database.ts'
import { listSights } from '../tables/devices.ts'
import { listPeople } from '../tables/people.ts'
import { listPackages } from '../tables/packages.ts'
import { listSlips, slipsBySerial } from '../tables/slips.ts'

type Finder = (db: Database, q: string) => Promise<Hit[]>

/** As many hits of a kind as fit on the card without scrolling. */
const HITS_A_KIND = 6

const slips: Finder = async (db, q) => {
  const rows = await listSlips(db, { q, sort: 'number', dir: 'down' })
  return rows.map((row) => ({
    kind: 'slip',
    number: row.number,
    title: row.device,
    detail: [row.customer, row.promise].filter((part) => part !== null && part !== '').join(' · '),
  }))
}

/** Slips by the serial number that was read of their device, whole or by its end. */
const bySerial: Finder = async (db, q) => {
  const wanted = q.trim()
  if (wanted.length < SERIAL_LEAST) return []
  const rows = await slipsBySerial(db, wanted, HITS_A_KIND)
  return rows.map(({ number, device, serial }) => ({
    kind: 'slip',
    number,
    title: device,
    detail: serial,
  }))
}
/** The end of a serial as labels bear it. */
const SERIAL_LEAST = 4

const people: Finder = async (db, q) => {
  const wanted = q.toLowerCase()
  const found = (await listPeople(db)).filter((row) => row.name.toLowerCase().includes(wanted))
  return found.map((row) => ({ kind: 'person', id: row.id, title: row.name, detail: row.role }))
}

/** Packages by their title, build and what they are for. */
const packages: Finder = async (db, q) => {
  const { packages: found } = await listPackages(db, { find: q, after: 0, limit: HITS_A_KIND })
  return found.map(({ manifest: { id, title, build, targets }, firstArchive }) => ({
    kind: 'package',
    id: packageKey(id, firstArchive),
    title,
    detail: [build, ...new Set(targets.map(({ model }) => model))]
      .filter((part) => part !== title)
      .join(' · '),
  }))
}

/** Devices that answer at a port, by serial number, model and build. */
const devices: Finder = async (db, q) => {
  const sights = (await listSights(db)).flatMap(({ port, facts }) =>
    facts === null ? [] : [{ port, ...facts }],
  )
  const found = sights.filter(({ serial, model, build }) => holds(q, [serial, model, build ?? '']))
  return found.map(({ port, serial, model, build }) => ({
    kind: 'device',
    port,
    title: serial,
    detail: [model, build ?? '', port].filter((part) => part !== '').join(' · '),
  }))
}

/** True when every typed word is part of one of the texts. */
const holds = (q: string, texts: readonly string[]): boolean =>
  q
    .toLowerCase()
    .split(/\s+/)
    .every((word) => texts.some((text) => text.toLowerCase().includes(word)))

const FINDERS: readonly Finder[] = [slips, bySerial, people, packages, devices]

/** Hits of every kind, an exact slip number first. Nothing typed finds nothing. */
export async function find(db: Database, q: string): Promise<Hit[]> {
  if (q === '') return []
  const kinds = await Promise.all(FINDERS.map((finder) => finder(db, q)))
  const all = kinds.flatMap((kind) => kind.slice(0, HITS_A_KIND))
  /* A slip that two finders found stands once. */
  const numbers = new Set<string>()
  const hits = all.filter((hit) => {
    if (hit.kind !== 'slip') return true
    const isNew = !numbers.has(hit.number)
    numbers.add(hit.number)
    return isNew
  })
  const exact = (hit: Hit) => hit.kind === 'slip' && hit.number === q.padStart(4, '0')
  return [...hits.filter(exact), ...hits.filter((hit) => !exact(hit))]
}
