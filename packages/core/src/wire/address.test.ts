import { describe, expect, it } from 'vitest'
import { isOwnAddress, readTcpAddress } from './address.ts'

const own = (text: string) => {
  const address = readTcpAddress(text)
  return address === undefined ? undefined : isOwnAddress(address)
}

describe('an address of a stream', () => {
  it('is a host and a port, and nothing else is one', () => {
    expect(readTcpAddress('tcp:127.0.0.1:4100')).toEqual({
      kind: 'tcp',
      host: '127.0.0.1',
      port: 4100,
    })
    expect(readTcpAddress('tcp:[::1]:4100')?.host).toBe('::1')
    for (const text of ['127.0.0.1:4100', 'tcp:x', 'tcp:x:0', 'tcp:x:65536', 'tcp:a b:1', ''])
      expect(readTcpAddress(text)).toBeUndefined()
  })

  it('is this machine’s own by what it is, not by how it begins', () => {
    expect(
      ['tcp:127.0.0.1:1', 'tcp:127.9.0.1:1', 'tcp:localhost:1', 'tcp:[::1]:1'].map(own),
    ).toEqual([true, true, true, true])
    expect(['tcp:127.0.0.1.example:1', 'tcp:10.0.0.4:1', 'tcp:[fe80::1]:1'].map(own)).toEqual([
      false,
      false,
      false,
    ])
  })
})
