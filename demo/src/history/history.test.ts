/** The demo's past: made by the twin from seeds, the same at each set-up, and told so that it can be replayed. */
import { flatten, modelled, readBuild, runWithFaults } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { DEMO_DEVICES } from '../devices/devices.ts'
import { originOn } from '../devices/make.ts'
import { digestOf } from '../packages/content.ts'
import { DEMO_SLIPS } from '../slips.ts'
import { OTHER_RUNS, PAST_RUNS, pastRuns } from './book.ts'
import { caseOf, family, familyOf, shelvedNamed, tarnFacts } from './devices.ts'
import { idFor } from './enter-run.ts'
import { DEMO_JOBS, backLines, intakeLines, reached } from './jobs.ts'
import { CAME_TO } from './lay-job.ts'
import { commandsOf, digestOfJson, pastRun } from './past-run.ts'

const NOW = Date.parse('2026-10-15T14:22:00.000Z')
const runs = pastRuns(NOW)

describe('the half year before', () => {
  it('holds runs of three families that all ended, the oldest first, none after now', () => {
    expect(runs).toHaveLength(PAST_RUNS + OTHER_RUNS)
    const families = new Set(runs.map(({ run }) => run.plan.family))
    expect([...families].sort()).toEqual(['alder', 'fen', 'tarn'])
    const wiped = runs.filter(({ run }) => run.plan.steps.some(({ kind }) => kind === 'erase'))
    expect(wiped.length).toBeGreaterThan(4)
    expect(runs.every(({ run }) => run.made.phase.kind === 'ended')).toBe(true)
    const times = runs.map(({ startedAt }) => startedAt)
    expect(times).toEqual([...times].sort((a, b) => a - b))
    expect(Math.max(...times)).toBeLessThan(NOW)
  })

  it('knows each device once, and each run by an id of its own', () => {
    expect(new Set(runs.map(({ run }) => run.plan.serial)).size).toBe(runs.length)
    expect(new Set(runs.map(({ id }) => id)).size).toBe(runs.length)
    expect(idFor('run 1000')).toMatch(
      /^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-8[0-9a-f]{3}-[0-9a-f]{12}$/,
    )
  })

  it('has a cable that drops more often than the others', () => {
    const share = (of: (cable: string) => boolean) => {
      const mine = runs.filter(({ cable }) => of(cable))
      return mine.reduce((sum, { run }) => sum + run.made.losses, 0) / mine.length
    }
    expect(share((cable) => cable === 'E')).toBeGreaterThan(share((cable) => cable !== 'E'))
  })

  it('is slower on the worn cable', () => {
    const lasts = (of: string) => {
      const mine = runs.filter(
        ({ cable, run }) => cable === of && run.made.losses === 0 && run.plan.family === family.id,
      )
      const per = mine.map(
        ({ run }) => (run.made.journal.at(-1)?.at ?? 0) / flatten(run.plan).commands.length,
      )
      return per.reduce((sum, one) => sum + one, 0) / per.length
    }
    expect(lasts('B')).toBeGreaterThan(lasts('A'))
  })

  it('comes out the same again, from what is kept with each run', () => {
    for (const { run, seed } of runs.slice(0, 9)) {
      const recipe = run.recipe as unknown as {
        pick: number
        faults: Parameters<typeof runWithFaults>[3]
        facts: Parameters<typeof caseOf>[0]
        catalogue: Parameters<typeof modelled>[2]
      }
      const read = { facts: recipe.facts, table: undefined, digests: new Map<string, string>() }
      const of = familyOf(shelvedNamed(run.plan.packages.at(-1)?.key ?? ''))
      const { nature, device } = modelled(of, read, recipe.catalogue, recipe.pick)
      const again = runWithFaults(nature, device, run.plan, recipe.faults)
      expect(digestOfJson(again.journal), `seed ${seed}`).toBe(run.journalDigest)
    }
  })

  it('has another journal with another fault, another device, another speed', () => {
    const facts = tarnFacts({ serial: 'TRN1' })
    const asked = { seed: 7, facts, package: 'tarn-H2.104.r4', faults: [], pick: 0.5 }
    const { journalDigest } = pastRun(asked)
    expect(pastRun(asked).journalDigest).toBe(journalDigest)
    expect(pastRun({ ...asked, pick: 0.6 }).journalDigest).not.toBe(journalDigest)
    expect(pastRun({ ...asked, faults: [{ piece: 2, kind: 'cable' }] }).journalDigest).not.toBe(
      journalDigest,
    )
    expect(pastRun({ ...asked, seed: 8 }).journalDigest).toBe(journalDigest)
  })
})

describe('the jobs of the demo', () => {
  it('are of slips that there are, each once', () => {
    const numbers = DEMO_JOBS.map(({ number }) => number)
    expect(new Set(numbers).size).toBe(numbers.length)
    for (const number of numbers)
      expect(
        DEMO_SLIPS.some((slip) => slip.number === number),
        number,
      ).toBe(true)
  })

  it('say what Intake needs, and what was said otherwise', () => {
    const cell = DEMO_JOBS.find(({ number }) => number === '0429')
    if (cell === undefined) throw new Error('no slip 0429')
    const said = new Map(intakeLines(cell))
    expect(said.get('condition.cell')).toBe('damaged')
    expect(said.get('owner.account')).toBe('absent')
    expect(said.has('consent.wipe')).toBe(false)
    expect(backLines(cell).map(([topic]) => topic)).toContain('back.case')
  })

  it('come as far as they are told, in order', () => {
    expect(reached('taken', 'read')).toBe(true)
    expect(reached('read', 'taken')).toBe(false)
    expect(reached('back', 'back')).toBe(true)
  })

  it('hold devices whose builds the family can read, and packages of the shelf', () => {
    for (const { facts } of DEMO_JOBS)
      expect(readBuild(family.build, facts.build ?? '').ok, facts.serial).toBe(true)
    expect(shelvedNamed('tarn-H2.104.r4').key).toMatch(/^tarn-H2\.104\.r4~[0-9a-f]{12}$/)
    expect(() => shelvedNamed('tarn-moon')).toThrow('no package')
    expect(caseOf(tarnFacts({ serial: 'TRN1' }), 'update').at.shelf.length).toBeGreaterThan(4)
  })
})

describe('the run that is in doubt', () => {
  it('left its handheld as the simulated one of its slip hangs at its port', () => {
    const job = DEMO_JOBS.find(({ number }) => number === '0428')
    const device = DEMO_DEVICES.find(({ serial }) => serial === job?.facts.serial)
    if (job === undefined || device === undefined) throw new Error('no 0428')
    const run = pastRun({ seed: 428, facts: job.facts, package: job.package, faults: [] })
    const commands = commandsOf(run.plan)
    const done = run.made.journal.slice(0, CAME_TO).filter(({ kind }) => kind === 'done')
    const written = done.flatMap(({ command }) => {
      const one = commands[command]
      return one?.kind === 'put' ? [one] : []
    })
    const images = run.plan.packages.flatMap(({ manifest }) => manifest.images)
    const held = images.map(({ role, partition, size, sha256 }) => {
      const pieces = written.filter((one) => one.partition === partition)
      const origin = originOn(device, role)
      const here = origin !== undefined && digestOf(origin, size) === sha256
      return [partition, here, pieces.reduce((sum, one) => sum + one.size, 0) === size]
    })
    expect(held.filter(([, here, whole]) => here !== whole)).toEqual([])
    expect(held.map(([, here]) => here)).toContain(false)
    expect([device.port, device.mode]).toEqual(['P6', 'off'])
  })
})
