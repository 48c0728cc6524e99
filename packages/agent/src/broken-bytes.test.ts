import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Command } from '@plain-slate/core'
import { openFolder } from '@plain-slate/vault'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { brokenBytes } from './broken-bytes.ts'

let folder: string
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'broken-'))))
afterEach(() => rmSync(folder, { recursive: true, force: true }))

const BYTES = Buffer.from('an image, and what stands behind it')
async function scene() {
  const vault = await openFolder(folder)
  const { sha256: archive } = await vault.store(
    (async function* () {
      await Promise.resolve()
      yield BYTES
    })(),
  )
  const { sha256: image } = await vault.store(
    (async function* () {
      await Promise.resolve()
      yield BYTES.subarray(0, 8)
    })(),
  )
  const put: Command = { kind: 'put', mode: 'm', partition: 'main', offset: 0, size: 8, image }
  const place = { image, archive, offset: 0, size: 8 }
  const path = join(folder, archive.slice(0, 2), archive.slice(2))
  return { vault, put, place, path }
}

describe('bytes that a run still needs', () => {
  it('are as they were, are gone, are short, or are others', async () => {
    const { vault, put, place, path } = await scene()
    const what = async (places = [place], commands: readonly Command[] = [put]) =>
      (await brokenBytes(vault, places, commands))?.what
    expect(await what()).toBeUndefined()
    expect(await what([])).toBe('missing')
    expect(await what([{ ...place, size: 4000 }])).toBe('damaged')
    chmodSync(path, 0o600)
    /* A byte behind the image is none of its own; one in it is. */
    writeFileSync(path, Buffer.concat([BYTES.subarray(0, -1), Buffer.from('!')]))
    expect(await what()).toBeUndefined()
    writeFileSync(path, Buffer.concat([Buffer.from('!'), BYTES.subarray(1)]))
    expect(await what()).toBe('damaged')
    rmSync(path)
    expect(await what()).toBe('missing')
    /* Nothing of it is sent any more: nobody needs it. */
    expect(await what([place], [{ kind: 'facts' }])).toBeUndefined()
  })
})
