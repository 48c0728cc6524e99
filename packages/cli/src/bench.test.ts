import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { port } from './bench.ts'

/** A data folder as a start leaves it. */
function folder(): string {
  const data = mkdtempSync(join(tmpdir(), 'cli-bench-'))
  writeFileSync(join(data, 'bench.secret'), 'secret')
  return data
}
const file = (data: string) => join(data, 'own-ports.json')
const ports = (data: string) =>
  (JSON.parse(readFileSync(file(data), 'utf8')) as { ports: object }).ports

describe('ports named at the bench’s own computer', () => {
  it('are an address of any machine, or a command with its arguments, none of them read by a shell', async () => {
    const data = folder()
    await port(['add', 'P1', 'tcp:10.0.0.4:4100', '--data', data])
    await port(['--data', data, 'add', 'P2', '--', 'tool', '--device', '1', '--json'])
    expect(ports(data)).toEqual({
      P1: { address: 'tcp:10.0.0.4:4100' },
      P2: { command: ['tool', '--device', '1', '--json'] },
    })
    await port(['strike', 'P1', '--data', data])
    expect(Object.keys(ports(data))).toEqual(['P2'])
  })

  it('whose address cannot be read, or whose file is damaged, change nothing', async () => {
    const data = folder()
    await expect(port(['add', 'P1', 'tcp:x:99999', '--data', data])).rejects.toThrow(
      'is no address',
    )
    expect(existsSync(file(data))).toBe(false)
    writeFileSync(file(data), '{"half')
    await expect(port(['add', 'P1', 'tcp:127.0.0.1:1', '--data', data])).rejects.toThrow(
      'cannot be read',
    )
    expect(readFileSync(file(data), 'utf8')).toBe('{"half')
  })

  it('want a folder that a shop was started in, and a name that a label holds', async () => {
    const none = mkdtempSync(join(tmpdir(), 'cli-none-'))
    await expect(port(['add', 'P1', 'tcp:127.0.0.1:1', '--data', none])).rejects.toThrow()
    await expect(
      port(['add', 'a-name-too-long', 'tcp:127.0.0.1:1', '--data', none]),
    ).rejects.toThrow()
  })
})
