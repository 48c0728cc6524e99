/** The shell's three words for a family's file: begun from the commented template, checked line by line, told in words. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { familySchema } from '@plain-slate/core'
import { afterAll, afterEach, describe, expect, it, vi } from 'vitest'
import { familyMain } from './family.ts'

const folder = mkdtempSync(join(tmpdir(), 'plain-slate-family-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
afterEach(() => vi.restoreAllMocks())

/** Runs the command; gives its exit code and all that it said. */
function says(...args: readonly string[]) {
  const said: string[] = []
  const put = (text: unknown) => void said.push(String(text))
  vi.spyOn(console, 'log').mockImplementation(put)
  vi.spyOn(console, 'error').mockImplementation(put)
  return { code: familyMain(args), said: said.join('\n') }
}

describe('a family in the shell', () => {
  const file = join(folder, 'mine.yaml')

  it('is begun from a template that is sound, does all it says, and shows every field', () => {
    expect(says('new', file).code).toBe(0)
    const { code, said } = says('check', file)
    expect(code).toBe(0)
    expect(said).toContain('mine version 1 of The maker is sound')
    expect(said).toContain('Everything it says can happen.')
    const shown = readFileSync(file, 'utf8')
    for (const field of Object.keys(familySchema.shape))
      expect(shown, field).toMatch(new RegExp(`^(# )?${field}:`, 'mu'))
  })

  it('is never written over', () => {
    writeFileSync(file, 'mine: own work')
    expect(says('new', file)).toMatchObject({
      code: 2,
      said: expect.stringContaining('it was left as it is') as string,
    })
    expect(readFileSync(file, 'utf8')).toBe('mine: own work')
    rmSync(file)
    says('new', file)
  })

  it('is refused by its lines, and what can never happen is named', () => {
    const text = readFileSync(file, 'utf8')
    const wrong = join(folder, 'wrong.yaml')
    writeFileSync(wrong, text.replace('signedSet: [kernel,', 'signedSet: [rescue, kernel,'))
    const refused = says('check', file, wrong)
    expect(refused.code).toBe(1)
    const line = text.split('\n').findIndex((one) => one.startsWith('signedSet')) + 1
    expect(refused.said).toContain(`wrong.yaml, line ${line}, signedSet.0: no partition has`)
    const never = join(folder, 'never.yaml')
    writeFileSync(never, text.replace('{ set: mixed }', '{ set: torn }'))
    const { code, said } = says('check', never)
    expect(code).toBe(0)
    expect(said).toContain('One thing that it says can never happen')
    expect(said).toContain('never: rule 2 decides before it each time.')
  })

  it('is told in words: what it says, and what it would do', () => {
    const { code, said } = says('explain', file)
    expect(code).toBe(0)
    expect(said).toContain('the set torn: a restart loop – fired on MODEL-1 b1, 32 GB')
    expect(said).toContain('Reached: off → the loader.')
    expect(says('explain', join(folder, 'none.yaml'))).toEqual({
      code: 2,
      said: `${join(folder, 'none.yaml')} cannot be read.`,
    })
    expect(says('tell', file).code).toBe(2)
  })
})
