/** A way as hands go it: each leg says what is held, what comes after, and the way back from the usual slip. */
import { describe, expect, it } from 'vitest'
import { alder, fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import type { Going } from './card.ts'
import { heldFor, legsTo } from './card.ts'
import { menuSentence, pressesTo } from './menu.ts'

const going = { permission: false, loader: undefined }
const legs = (family: typeof tarn, from: string, to: string, more: Partial<Going> = {}) =>
  legsTo(family, from, to, { ...going, ...more }) ?? []
const menuOf = (family: typeof tarn) => {
  const menu = family.modes.find(({ id }) => id === 'rescue')?.menu
  if (menu === undefined) throw new Error('no menu')
  return menu
}

describe('a menu', () => {
  it.each([
    ['the newest loader', 7, 1, 'erase all'],
    ['the first of the newer ones', 6, 1, 'erase all'],
    ['the last of the older ones', 5, 2, 'erase all'],
  ])('counts presses under %s, and tells the dangerous neighbour', (_, loader, presses, beside) => {
    const [one, ...others] = pressesTo(menuOf(tarn), 'install', loader)
    expect(one?.presses).toBe(presses)
    expect(one?.dangers.map(({ name }) => name)).toEqual([beside])
    expect(others).toEqual([])
  })

  it('says both where nobody knows the loader', () => {
    const said = menuSentence(menuOf(tarn), 'install', undefined)
    expect(said).toContain('Loader 5 and older: Two presses')
    expect(said).toContain('Loader 6 and newer: One press')
    expect(menuSentence(menuOf(tarn), 'start', 7)).toMatch(/^No press/)
  })

  it('moves to another place with the phones’ newer loaders', () => {
    const at = (loader: number) => pressesTo(menuOf(alder), 'install', loader)[0]
    expect([at(30)?.presses, at(31)?.presses]).toEqual([1, 2])
    expect(at(30)?.dangers).toEqual([])
    expect(at(31)?.dangers.map(({ id }) => id)).toEqual(['reset'])
  })

  it('follows what the family says of its order, and not its name', () => {
    const menu = menuOf(tarn)
    const other = {
      ...menu,
      orders: [{ upToLoader: 9, lines: ['ids', 'erase', 'start', 'install'] }],
    }
    expect(pressesTo(other, 'install', 7)[0]?.presses).toBe(3)
    const renamed = { ...menu, lines: menu.lines.map((one) => ({ ...one, name: 'a line' })) }
    expect(pressesTo(renamed, 'install', 7)[0]?.presses).toBe(1)
  })
})

describe('a leg', () => {
  it('says how long keys are held, and what its usual slip leads to', () => {
    const [chord] = legs(alder, 'off', 'loader')
    expect(chord && heldFor(chord)).toEqual([7, 9])
    expect(chord?.slip?.leads).toBe('system')
    expect(chord?.slip?.back?.map(({ to }) => to)).toEqual(['off'])
  })

  it('tells what arrival looks like, and what it is taken for', () => {
    const [chord] = legs(tarn, 'off', 'loader')
    expect(chord?.looks).toBe('a grey bar above six small lines')
    expect(chord?.alike.map(({ mode }) => mode)).toEqual(['rescue'])
  })

  it('through a start of the system is told as one', () => {
    const starts = (from: string, to: string) => legs(tarn, from, to).map((one) => one.starts)
    expect(starts('rescue', 'normal')).toEqual([true])
    expect(starts('rescue', 'loader')).toEqual([false, false])
  })

  it('takes the command where the permission is given, and keys where it is not', () => {
    const hows = (permission: boolean) =>
      legs(tarn, 'normal', 'loader', { permission }).map(({ how }) => how)
    expect(hows(true)).toEqual(['command'])
    expect(hows(false)).toEqual(['keys', 'chord'])
  })

  it('goes by hands while a run waits, and over the link where that run tells it on', () => {
    const hows = (family: typeof tarn, from: string, to: string, byHand: boolean) =>
      legs(family, from, to, { permission: true, byHand }).map(({ how }) => how)
    expect(hows(tarn, 'normal', 'loader', true)).toEqual(['keys', 'chord'])
    expect(hows(alder, 'off', 'transfer', true)).toEqual(['chord', 'command'])
    expect(hows(alder, 'loader', 'system', false)).toEqual(['command'])
    expect(hows(alder, 'loader', 'system', true)).toEqual(['keys', 'keys'])
  })

  it('of a hang and a loop begins with switching off', () => {
    for (const [family, from] of [
      [tarn, 'loop'],
      [alder, 'hang'],
      [fen, 'loop'],
    ] as const)
      expect(legs(family, from, 'loader')[0]?.to, `${family.id} ${from}`).toBe('off')
  })
})
