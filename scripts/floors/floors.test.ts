import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { ROOT } from '../bootstrap.mjs'
import { CORE_OUTSIDERS, FLOORS, MAY_IMPORT, PACKAGES, TEST_OUTSIDERS } from './floors.ts'
import { circleIn, importsOfPackages } from './imports.ts'
import type { Import } from './imports.ts'

const imports = importsOfPackages()
const folderOf = (pack: string, path: string) =>
  new RegExp(`^packages/${pack}/src/([a-z-]+)/`).exec(path)?.[1]
const packageOf = (path: string) => /^packages\/([a-z-]+)\//.exec(path)?.[1]
const packageNamed = (name: string) => /^@plain-slate\/([a-z-]+)/.exec(name)?.[1]
const told = (found: readonly Import[]) => found.map(({ from, to }) => `${from} → ${to}`)

/** Arrows that go sideways or up. */
function upward(floors: readonly (readonly string[])[]) {
  const folders = floors.flatMap((names, floor) => names.map((name) => ({ name, floor })))
  return folders.flatMap((from) =>
    folders
      .filter((to) => to.name !== from.name && to.floor >= from.floor)
      .map((to) => [from.name, to.name] as const),
  )
}

describe.each(Object.entries(FLOORS))('in %s', (pack, floors) => {
  const sources = pack === 'core' ? imports : imports.filter(({ isTest }) => !isTest)

  it.each(upward(floors))('%s never imports from %s', (from, to) => {
    const found = sources.filter(
      (one) => folderOf(pack, one.from) === from && folderOf(pack, one.to) === to,
    )
    expect(told(found)).toEqual([])
  })

  it('every folder has its floor, and every floor its folders', () => {
    const there = readdirSync(join(ROOT, `packages/${pack}/src`), { withFileTypes: true })
    const names = there.filter((entry) => entry.isDirectory()).map((entry) => entry.name)
    const floored = new Set(floors.flat())
    expect(names.filter((name) => !floored.has(name) && name !== 'testing')).toEqual([])
    /* Core's floors name parts that are still to come. */
    if (pack !== 'core') expect([...floored].filter((name) => !names.includes(name))).toEqual([])
  })
})

describe('of core', () => {
  it('nothing comes from outside but what is named', () => {
    const outside = imports.filter(
      ({ from, to, isTest }) =>
        packageOf(from) === 'core' &&
        !to.startsWith('packages/') &&
        !CORE_OUTSIDERS.includes(to) &&
        !(isTest && TEST_OUTSIDERS.includes(to)),
    )
    expect(told(outside)).toEqual([])
  })
})

const forbidden = PACKAGES.flatMap((from) =>
  PACKAGES.filter((to) => to !== from && !MAY_IMPORT[from].includes(to)).map(
    (to) => [from, to] as const,
  ),
)

describe('of the packages', () => {
  it.each(forbidden)('%s never imports %s', (from, to) => {
    const found = imports.filter(
      (one) =>
        packageOf(one.from) === from && (packageNamed(one.to) === to || packageOf(one.to) === to),
    )
    expect(told(found)).toEqual([])
  })

  it('each is named here', () => {
    const there = readdirSync(join(ROOT, 'packages'))
    expect(there.filter((name) => !PACKAGES.some((known) => known === name))).toEqual([])
  })

  it('none reaches into another but through its front door', () => {
    const inside = imports.filter(
      ({ from, to }) => to.startsWith('packages/') && packageOf(from) !== packageOf(to),
    )
    const past = imports.filter(({ to }) => /^@plain-slate\/[a-z-]+\//.test(to))
    expect(told([...inside, ...past])).toEqual([])
  })

  it('no file stands in a circle', () => {
    expect(circleIn(imports.filter(({ isTest }) => !isTest))).toBeUndefined()
  })

  it('SQL and Knex stand only where tables are', () => {
    const strays = imports.filter(
      ({ from, to, isTest }) =>
        ['knex', 'pg'].includes(to) &&
        !isTest &&
        !/server\/src\/(tables|migrations)\//.test(from) &&
        from !== 'packages/server/src/people/session.ts',
    )
    expect(told(strays)).toEqual([])
  })
})

describe('the rule itself', () => {
  it('sees imports of every kind, in Vue files too', () => {
    expect(imports.some(({ from }) => from.endsWith('.vue'))).toBe(true)
    expect(imports.some(({ to }) => to === '@plain-slate/core')).toBe(true)
    const lazy = imports.filter(({ from, to }) => from.endsWith('router.ts') && to.endsWith('.vue'))
    expect(lazy.length).toBeGreaterThan(10)
    expect(lazy.every(({ to }) => existsSync(join(ROOT, to)))).toBe(true)
  })

  it('finds a circle when there is one', () => {
    const arrow = (from: string, to: string): Import => ({ from, to, isTest: false })
    expect(circleIn([arrow('a', 'b'), arrow('b', 'c'), arrow('c', 'b')])).toEqual(['b', 'c', 'b'])
    expect(circleIn([arrow('a', 'b'), arrow('a', 'c'), arrow('b', 'c')])).toBeUndefined()
  })
})
