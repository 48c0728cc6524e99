/** What is shown of a person, and what a decision needs of them. */
import type { Face, Person } from '@plain-slate/api'
import type { PersonRow } from '../tables/people.ts'

/** First letters of the first and the last word of a name: "Ilse Maro" → "IM". */
export function initialsOf(name: string): string {
  const words = name.split(/\s+/).filter((word) => word !== '')
  const ends = words.length > 1 ? [words.at(0), words.at(-1)] : [words.at(0)]
  return ends.map((word) => word?.at(0)?.toUpperCase() ?? '').join('')
}

export function faceOf(row: Pick<PersonRow, 'id' | 'name' | 'role'>): Face {
  return { id: row.id, name: row.name, initials: initialsOf(row.name), role: row.role }
}

/** What is shown of a person to those who are signed in. */
export const personOf = (row: PersonRow): Person => ({
  ...faceOf(row),
  active: row.active,
  addedAt: row.addedAt.toISOString(),
})
