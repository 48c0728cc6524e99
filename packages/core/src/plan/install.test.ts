/** In what ways a package goes on that asks for a memory card. */
import { describe, expect, it } from 'vitest'
import type { Case } from '../match/rule.ts'
import { of, saysOf } from '../testing/judged.ts'
import { newest } from '../testing/packages.ts'
import { installsOf, isByImages } from './install.ts'

describe('a package that asks for a card', () => {
  it('what is of a card alone goes on in no other way, and never where no card installs it', () => {
    const at = of({ kind: 'incremental', requires: { exactBuild: 'H2.0ZC.r4', card: true } })
    expect(saysOf('state.card', at)).not.toBe('does-not-fit never')
    expect(isByImages({ ...newest, requires: { card: true } })).toBe(false)
    expect(isByImages(newest)).toBe(true)
    const froms = (one: Case) => installsOf(one).map(({ rule }) => rule.from)
    expect(froms(at).every((from) => from === 'card')).toBe(true)
    const full = of({ requires: { card: true } })
    const without = { ...full, family: { ...full.family, installs: [] } }
    expect(saysOf('state.card', full)).not.toBe('does-not-fit never')
    expect(saysOf('state.card', without)).toBe('does-not-fit never')
  })
})
