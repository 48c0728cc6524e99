/** The permit that was brought: by its file or by a word, and what an id that looks alike differs in. */
import { describe, expect, it } from 'vitest'
import type { Line } from '../terms/line.ts'
import { alikeAt } from '../terms/text.ts'
import type { BroughtPermit } from './permit.ts'
import { PERMIT_TOPIC, permitIn, permitOf, permitText } from './permit.ts'

const permit = { id: 'PM-1', device: '7A31-C0', scope: 'service', until: '2026-11-30' } as const

describe('the permit that was brought', () => {
  const brought = (answer: string, files = new Map<string, BroughtPermit>()) => {
    const line: Line = { topic: PERMIT_TOPIC, answer, at: Date.parse('2026-10-05T10:00:00Z') }
    return permitIn(new Map([[PERMIT_TOPIC, line]]), files)
  }
  const proof = { maker: 'Corvane', key: 'k', from: '2026-10-01', packages: ['one'] }

  it('is somebody’s word without a file, the maker’s with one, and none where the file is gone', () => {
    expect(brought(permitText(permit))).toMatchObject({ id: 'PM-1', said: '2026-10-05' })
    const signed = permitText(permit, 'd'.repeat(64))
    const { id, device, scope, until } = permit
    const files = new Map([['d'.repeat(64), { id, device, scope, until, signed: proof }]])
    expect(brought(signed, files)).toEqual({ id, device, scope, until, signed: proof })
    expect(brought(signed)).toBeUndefined()
    /* What its line says beside the file counts for nothing. */
    expect(brought(signed.replace('7A31-C0', '7A31-FF'), files)?.device).toBe(device)
  })

  it('of before names no kind, and is for service', () => {
    expect(permitOf('PM-1 7A31-C0 2026-11-30')?.scope).toBe('service')
    expect(permitOf('PM-1 7A31-C0 2026-11-30 pilot')?.scope).toBe('pilot')
  })
})

describe('two ids that look alike', () => {
  it('say where they differ', () => {
    expect(alikeAt('9E41-O4I3', '9E41-0413')).toEqual({ at: 6, says: 'O', is: '0' })
    expect(alikeAt('9E41-0413', '9E41-0413')).toBeUndefined()
    expect(alikeAt('9E41-0414', '9E41-0413')).toBeUndefined()
  })
})
