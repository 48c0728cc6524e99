import { describe, expect, it } from 'vitest'
import { DEATH_WINDOW_MS, supervise, tooOften } from './supervisor.ts'
import type { Watch } from './supervisor.ts'

function bench(startsBefore = Infinity) {
  const said: string[] = []
  const gaveUp: string[] = []
  let now = 0
  let starts = 0
  let stops = 0
  let die: (how: string) => void = () => undefined
  const watch: Watch = {
    now: () => now,
    pause: () => Promise.resolve(),
    say: (sentence) => said.push(sentence),
    gaveUp: (name) => gaveUp.push(name),
  }
  const service = {
    name: 'server',
    start: (died: (how: string) => void) => {
      starts += 1
      if (starts > startsBefore) return Promise.reject(new Error('no room'))
      die = died
      return Promise.resolve({ stop: () => Promise.resolve(void (stops += 1)) })
    },
  }
  const kill = async (after = 0) => {
    now += after
    die('kill')
    await new Promise((done) => setTimeout(done, 0))
  }
  return { watch, service, kill, said, gaveUp, counts: () => ({ starts, stops }) }
}

describe('a supervised process', () => {
  it('is started again when it dies', async () => {
    const { watch, service, kill, counts } = bench()
    await supervise(service, watch)
    await kill()
    expect(counts().starts).toBe(2)
  })

  it('is given up after five deaths within a minute, and only then', async () => {
    const { watch, service, kill, gaveUp, counts } = bench()
    await supervise(service, watch)
    for (let death = 0; death < 4; death += 1) await kill(1000)
    expect(gaveUp).toEqual([])
    await kill(1000)
    expect(gaveUp).toEqual(['server'])
    expect(counts().starts).toBe(5)
  })

  it('that is hindered by what is over by and by is waited for, and no death counts meanwhile', async () => {
    const { watch, service, kill, gaveUp, said, counts } = bench()
    let full = false
    const pause = () => new Promise<void>((done) => setTimeout(done, 0))
    const hindered = () => (full ? 'The disk is full.' : undefined)
    await supervise(service, { ...watch, pause, hindered })
    for (let death = 0; death < 8; death += 1) {
      full = true
      await kill(1000)
      await pause()
      expect(counts().starts).toBe(1 + death)
      full = false
      await new Promise((done) => setTimeout(done, 5))
      expect(counts().starts).toBe(2 + death)
    }
    expect([gaveUp, said.filter((one) => one.includes('The disk is full.')).length]).toEqual([
      [],
      8,
    ])
  })

  it('may die for ever if it takes its time', async () => {
    const { watch, service, kill, gaveUp } = bench()
    await supervise(service, watch)
    for (let death = 0; death < 20; death += 1) await kill(DEATH_WINDOW_MS / 4)
    expect(gaveUp).toEqual([])
  })

  it('counts a start that fails as a death', async () => {
    const { watch, service, kill, gaveUp } = bench(1)
    await supervise(service, watch)
    await kill()
    await new Promise((done) => setTimeout(done, 5))
    expect(gaveUp).toEqual(['server'])
  })

  it('stays down once it was stopped', async () => {
    const { watch, service, kill, counts } = bench()
    const supervision = await supervise(service, watch)
    await supervision.stop()
    await kill()
    expect(counts()).toEqual({ starts: 1, stops: 1 })
  })

  it('whose first start fails is the caller’s to tell', async () => {
    const { watch, service } = bench(0)
    await expect(supervise(service, watch)).rejects.toThrow('no room')
  })
})

describe('too often', () => {
  it('forgets deaths older than the window', () => {
    expect(tooOften([0, 1, 2, 3, 4], 4)).toBe(true)
    expect(tooOften([0, 1, 2, 3, 4], DEATH_WINDOW_MS)).toBe(false)
  })
})
