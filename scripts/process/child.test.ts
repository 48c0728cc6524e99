import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { isAlive, lifeOf, parentOf, waitUntil } from './alive.ts'
import { endChild, startChild } from './child.ts'

const logFile = () => join(mkdtempSync(join(tmpdir(), 'child-')), 'log')
const shell = (script: string, onLine?: (line: string) => void) => {
  const log = logFile()
  const plan = { command: ['sh', '-c', script], endSignal: 'SIGTERM', logFile: log } as const
  return { log, child: startChild(onLine === undefined ? plan : { ...plan, onLine }) }
}

describe('a child process', () => {
  it('says its lines to us and the rest to its log', async () => {
    const lines: string[] = []
    const { child, log } = shell('echo one; echo two; echo trouble >&2', (line) => lines.push(line))
    await new Promise((done) => child.on('close', done))
    expect(lines).toEqual(['one', 'two'])
    expect(readFileSync(log, 'utf8')).toBe('trouble\n')
  })

  it('ends when asked, and is killed when it will not', async () => {
    const willing = shell('exec sleep 30').child
    await endChild(willing, 'SIGTERM', 5000)
    expect(willing.signalCode).toBe('SIGTERM')
    const stubborn = shell('trap "" TERM; while :; do sleep 0.05; done', () => undefined).child
    await waitUntil(() => false, 200)
    await endChild(stubborn, 'SIGTERM', 200)
    expect(stubborn.signalCode).toBe('SIGKILL')
  })

  it('is told from another that got its number later', async () => {
    const { child } = shell('exec sleep 30')
    const life = lifeOf(child.pid ?? 0)
    if (life === undefined) throw new Error('it did not start')
    expect([isAlive(life), isAlive({ ...life, began: '0' })]).toEqual([true, false])
    expect(parentOf(life.pid)).toBe(process.pid)
    await endChild(child, 'SIGKILL', 1000)
    expect(isAlive(life)).toBe(false)
  })
})
