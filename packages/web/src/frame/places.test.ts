import { speaker } from '@plain-slate/texts'
import { describe, expect, it } from 'vitest'
import { PLACES, aroundKey } from './places.ts'

const say = speaker('en-GB')

describe('a place', () => {
  it('has a key of its own that is a letter of its name', () => {
    expect(new Set(PLACES.map((place) => place.key)).size).toBe(PLACES.length)
    for (const { label, key } of PLACES) expect(aroundKey(say(label), key)[1]).not.toBe('')
  })

  it('underlines the first such letter', () => {
    expect(aroundKey('Slips', 'l')).toEqual(['S', 'l', 'ips'])
    expect(aroundKey('Shelf', 'h')).toEqual(['S', 'h', 'elf'])
    expect(aroundKey('Étage', 'k')).toEqual(['Étage', '', ''])
  })
})
