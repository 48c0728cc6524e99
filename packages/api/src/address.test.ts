import { describe, expect, it } from 'vitest'
import { addressIn, contract } from './contract.ts'

describe('the address of a route', () => {
  it('has its parameters encoded and only what is asked for', () => {
    expect(addressIn(contract.shelfPackage.path, { id: 'a b/c' }, {})).toBe(
      '/api/shelf/packages/a%20b%2Fc',
    )
    expect(addressIn(contract.shelve.path, {}, { name: 'a.tar', sha256: undefined })).toBe(
      '/api/shelf/archives?name=a.tar',
    )
    expect(addressIn(contract.slips.path, {}, { q: '', limit: 5 })).toBe('/api/slips?limit=5')
  })
})
