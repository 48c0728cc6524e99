/** The drawing of a family's ways: every mode and every way is there, and none lies on another. */
import { readFileSync, readdirSync } from 'node:fs'
import { familySchema } from '@plain-slate/core'
import type { Family } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { NODE, edgesOf, nodesOf } from './graph.ts'

const folder = new URL('../../../../demo/families/', import.meta.url)
const families = readdirSync(folder).map((name): Family =>
  familySchema.parse(parse(readFileSync(new URL(name, folder), 'utf8'))),
)

describe.each(families)('the ways of $id', (family) => {
  it('are drawn between boxes that do not overlap', () => {
    const nodes = nodesOf(family)
    expect(nodes.map(({ id }) => id).sort()).toEqual(family.modes.map(({ id }) => id).sort())
    for (const [index, one] of nodes.entries())
      for (const other of nodes.slice(index + 1)) {
        const apart =
          Math.abs(one.x - other.x) >= NODE.wide || Math.abs(one.y - other.y) >= NODE.high
        expect(apart, `${one.id} and ${other.id}`).toBe(true)
      }
  })

  it('are each drawn once from every mode where they begin', () => {
    const begin = family.ways.flatMap(({ from, to }) =>
      from === 'any' ? family.modes.map(({ id }) => id).filter((id) => id !== to) : from,
    )
    const edges = edgesOf(family)
    expect(edges).toHaveLength(begin.length)
    expect(new Set(edges.map(({ path }) => path)).size).toBe(edges.length)
  })

  it('follow the file: one way less is one line less', () => {
    const fewer = { ...family, ways: family.ways.slice(1) }
    expect(edgesOf(fewer).length).toBeLessThan(edgesOf(family).length)
  })
})
