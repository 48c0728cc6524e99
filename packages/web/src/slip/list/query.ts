/** The list's query in the address: read from it, written to it, nowhere else. */
import type { LocationQuery, LocationQueryRaw } from 'vue-router'

/** What the list can be asked for, as texts, empty where it is not. */
export type ListQuery = Readonly<
  Record<'q' | 'state' | 'intent' | 'stage' | 'sort' | 'dir' | 'page', string>
>
const KEYS = ['q', 'state', 'intent', 'stage', 'sort', 'dir', 'page'] as const

/** A page as the list counts them; another in an address typed by hand is the first. */
const PAGE = /^[1-9]\d{0,4}$/

export function readListQuery(query: LocationQuery): ListQuery {
  const text = (key: string) => {
    const value = query[key]
    if (typeof value !== 'string' || (key === 'page' && !PAGE.test(value))) return ''
    return value
  }
  return Object.fromEntries(KEYS.map((key) => [key, text(key)])) as ListQuery
}

/** Only what is asked for, so that the plain list has a plain address. */
export function writeListQuery(query: ListQuery): LocationQueryRaw {
  return Object.fromEntries(Object.entries(query).filter(([, value]) => value !== ''))
}

/** Another search, filter or order begins at its first page. */
export const changedTo = (query: ListQuery, part: Partial<ListQuery>): ListQuery => ({
  ...query,
  page: '',
  ...part,
})

/** The query after a click on a column: that column up, then down, then the list's own order. */
export function sortedBy(query: ListQuery, column: string): ListQuery {
  if (query.sort !== column) return changedTo(query, { sort: column, dir: '' })
  if (query.dir === '') return changedTo(query, { dir: 'down' })
  return changedTo(query, { sort: '', dir: '' })
}
