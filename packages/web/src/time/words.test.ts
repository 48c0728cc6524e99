import { describe, expect, it } from 'vitest'
import { clockTime, fieldOf, momentOfField, whenWords } from './words.ts'

const NOW = Date.parse('2026-10-15T14:22:00Z')
const words = (iso: string, zone = 'UTC') => whenWords(Date.parse(iso), NOW, zone)

describe('a moment in words', () => {
  it('is near or has a date', () => {
    expect(words('2026-10-15T16:30:00Z')).toBe('today 16:30')
    expect(words('2026-10-14T23:59:00Z')).toBe('yesterday 23:59')
    expect(words('2026-10-16T00:00:00Z')).toBe('tomorrow 00:00')
    expect(words('2026-10-23T09:00:00Z')).toBe('Fri 23 Oct 09:00')
  })

  it('is told in the shop’s zone, not in the browser’s', () => {
    expect(words('2026-10-15T23:30:00Z', 'Etc/GMT-2')).toBe('tomorrow 01:30')
    expect(clockTime(NOW, 'Etc/GMT+3')).toBe('11:22')
  })
})

describe('a calendar field', () => {
  it('reads back what it wrote, also across a change of the clocks', () => {
    for (const zone of ['UTC', 'Etc/GMT-2', 'Europe/Lisbon'])
      for (const iso of [
        '2026-10-15T16:30:00Z',
        '2026-10-25T02:30:00Z',
        '2026-10-24T23:10:00Z',
        '2026-07-01T12:00:00Z',
      ]) {
        const at = Date.parse(iso)
        expect(momentOfField(fieldOf(at, zone), zone), `${iso} ${zone}`).toBe(at)
      }
  })

  it('that is no date is none', () => {
    expect(momentOfField('soon', 'UTC')).toBeUndefined()
  })
})
