/** The shell tool as tests run it. */
import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { vi } from 'vitest'
import { main } from '../../packages/cli/src/main.ts'

const TOOL = fileURLToPath(new URL('../../packages/cli/bin/plain-slate.mjs', import.meta.url))

export type Said = { readonly code: number | null; readonly out: string; readonly err: string }
type Env = Readonly<Record<string, string | undefined>>

/** Within this process: what it prints, and how it ends. One at a time. */
export async function toolHere(args: readonly string[], env: Env = {}): Promise<Said> {
  const said = { out: '', err: '' }
  const log = vi.spyOn(console, 'log').mockImplementation((text) => void (said.out += text))
  const error = vi.spyOn(console, 'error').mockImplementation((text) => void (said.err += text))
  for (const [name, value] of Object.entries(env)) vi.stubEnv(name, value)
  const code = await main(args)
  for (const spy of [log, error]) spy.mockRestore()
  vi.unstubAllEnvs()
  return { code, ...said }
}

/** As a process; Enter is pressed every so often, as a person would who does what is asked. */
export function tool(args: readonly string[], env: Env = {}): Promise<Said> {
  const child = spawn(process.execPath, [TOOL, ...args], { env: { ...process.env, ...env } })
  const said = { out: '', err: '' }
  child.stdout.on('data', (text) => (said.out += String(text)))
  child.stderr.on('data', (text) => (said.err += String(text)))
  child.stdin.on('error', () => undefined)
  const enter = setInterval(() => child.stdin.write('\n'), 200)
  return new Promise((resolve) =>
    child.once('close', (code) => {
      clearInterval(enter)
      resolve({ code, ...said })
    }),
  )
}
