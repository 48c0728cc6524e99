import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { clusterOf, inDoubtIn, noteMade } from './place.ts'

const nobody = undefined
const place = (folder: string, asCopy = false) => clusterOf(folder, nobody, asCopy)
const inside = (folder: string) => join(folder, 'cluster', 'postgres')

/** A folder with a database in it, as a start leaves it. */
function shop(): string {
  const folder = join(mkdtempSync(join(tmpdir(), 'place-')), 'data')
  mkdirSync(folder)
  const cluster = place(folder)
  mkdirSync(cluster, { recursive: true })
  writeFileSync(join(cluster, 'PG_VERSION'), '15')
  noteMade(folder, cluster)
  return folder
}
const copied = (folder: string): string => {
  cpSync(folder, `${folder}-copy`, { recursive: true })
  return `${folder}-copy`
}

describe('a data folder', () => {
  it('has its database in it, from its first start on', () => {
    const folder = shop()
    expect(place(folder)).toBe(inside(folder))
  })

  it('that was moved has it there, and so has one whose note is of before', () => {
    const folder = shop()
    renameSync(folder, `${folder}-moved`)
    expect(place(`${folder}-moved`)).toBe(inside(`${folder}-moved`))
    const old = JSON.stringify({ folder: inside(folder) })
    writeFileSync(join(`${folder}-moved`, 'cluster.json'), old)
    expect(place(`${folder}-moved`)).toBe(inside(`${folder}-moved`))
  })

  it('copied beside its original is told, nothing changed; asked for, it is a shop of its own with its runs in doubt', () => {
    const folder = shop()
    const copy = copied(folder)
    const before = readFileSync(join(copy, 'cluster.json'), 'utf8')
    expect(() => place(copy)).toThrow(`is a copy of ${folder}, which is still there`)
    expect(readFileSync(join(copy, 'cluster.json'), 'utf8')).toBe(before)
    expect(place(copy, true)).toBe(inside(copy))
    expect(existsSync(inDoubtIn(copy))).toBe(true)
    expect([place(copy), place(folder)]).toEqual([inside(copy), inside(folder)])
    expect(existsSync(inDoubtIn(folder))).toBe(false)
  })

  it('copied while a note of before stood in both is told too', () => {
    const folder = shop()
    writeFileSync(join(folder, 'cluster.json'), JSON.stringify({ folder: inside(folder) }))
    const copy = copied(folder)
    expect(() => place(copy)).toThrow('is a copy of')
    expect(place(folder)).toBe(inside(folder))
  })

  it('copied before its original had a name for itself is told after that too', () => {
    const folder = shop()
    const copy = copied(folder)
    writeFileSync(join(copy, 'cluster.json'), JSON.stringify({ folder: inside(folder) }))
    place(folder)
    expect(() => place(copy)).toThrow('is a copy of')
  })

  it('whose original is gone was moved', () => {
    const folder = shop()
    const copy = copied(folder)
    rmSync(folder, { recursive: true })
    expect(place(copy)).toBe(inside(copy))
    expect(existsSync(inDoubtIn(copy))).toBe(false)
  })

  it('whose database is gone gets no empty one; a start that was ended before there was any goes on', () => {
    const folder = shop()
    rmSync(join(folder, 'cluster'), { recursive: true })
    expect(() => place(folder)).toThrow('Nothing was made in its place')
    expect(existsSync(inside(folder))).toBe(false)
    const young = mkdtempSync(join(tmpdir(), 'place-'))
    place(young)
    expect(place(young)).toBe(inside(young))
  })

  it('with a torn note has the database that lies in it', () => {
    const folder = shop()
    writeFileSync(join(folder, 'cluster.json'), '{"fold')
    expect(place(folder)).toBe(inside(folder))
    rmSync(join(folder, 'cluster'), { recursive: true })
    writeFileSync(join(folder, 'cluster.json'), '{"fold')
    writeFileSync(join(folder, 'application.secret'), 'x')
    expect(() => place(folder)).toThrow('Nothing was made in its place')
  })
})
