import type { Hit } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { findings } from './findings.ts'

const hits: Hit[] = [
  { kind: 'slip', number: '0417', title: 'Brakken H2K', detail: 'Ferry line' },
  { kind: 'person', id: 'p1', title: 'Tavi Renn', detail: 'technician' },
]
const nothing = () => undefined
const commands = [
  { id: 'new', title: 'New slip', act: nothing },
  { id: 'book', title: 'Go to the Book', act: nothing },
]

describe('the find box', () => {
  it('lists hits before commands and knows where each leads', () => {
    const found = findings(hits, commands, 'slip')
    expect(found.map((one) => one.id)).toEqual(['slip-0417', 'person-p1', 'command-new'])
    expect(found[0]).toMatchObject({ to: '/slips/0417' })
    expect(found[1]).toMatchObject({ to: '/book?by=p1' })
  })

  it('leads to a package on the shelf and to a device at its port', () => {
    const [pack, device] = findings(
      [
        { kind: 'package', id: 'tarn-H2.104.r4', title: 'H2.104.r4', detail: '' },
        { kind: 'device', port: 'P2', title: 'TRN4490077F31', detail: 'BRAK-H2K' },
      ],
      [],
      'h2',
    )
    expect(pack).toMatchObject({ to: '/shelf/tarn-H2.104.r4' })
    expect(device).toMatchObject({ to: '/bench/P2', id: 'device-TRN4490077F31' })
  })

  it('offers a command whose words begin as typed, in any order', () => {
    expect(findings([], commands, 'bo go').map((one) => one.id)).toEqual(['command-book'])
    expect(findings([], commands, 'ook')).toEqual([])
  })
})
