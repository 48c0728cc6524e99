/** A server whose log cannot be written loses its lines, and nothing else. */
import { spawn } from 'node:child_process'
import { mkdtempSync, openSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { cloneTemplate } from '@plain-slate/server/testing'
import { expect, it } from 'vitest'
import { ROOT } from '../../scripts/bootstrap.mjs'

it('goes on answering while every line of its log fails', async () => {
  const { databaseUrl } = await cloneTemplate('empty')
  const folder = mkdtempSync(join(tmpdir(), 'full-'))
  writeFileSync(join(folder, 'secrets'), 'cookie-secret\nbench-secret\n')
  /* A device that takes nothing: every write to it is "no space left". */
  const full = openSync('/dev/full', 'w')
  const child = spawn(process.execPath, ['packages/server/dist/main.mjs'], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PLAIN_SLATE_SECRETS: join(folder, 'secrets'),
      PLAIN_SLATE_VAULT: join(folder, 'vault'),
      PLAIN_SLATE_LOG: 'debug',
    },
    stdio: ['ignore', 'pipe', full],
  })
  const port = await new Promise<string>((resolve, reject) => {
    child.once('exit', () => reject(new Error('it ended')))
    child.stdout?.on('data', (text: Buffer) => {
      const [, found] = /listening (\d+)/.exec(text.toString()) ?? []
      if (found !== undefined) resolve(found)
    })
  })
  for (let asked = 0; asked < 20; asked += 1) {
    const answer = await fetch(`http://127.0.0.1:${port}/api/slips`)
    expect(answer.status).toBe(401)
    await answer.arrayBuffer()
  }
  expect([child.exitCode, child.signalCode]).toEqual([null, null])
  const gone = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGKILL')
  await gone
})
