import { describe, expect, it } from 'vitest'
import type { Cut, Evidence, Manifest, Plan } from '@plain-slate/core'
import { CUT_KINDS, chances, flatten, modeOfKind } from '@plain-slate/core'
import { DEMO_DEVICES } from '@plain-slate/demo'
import type { DemoDevice } from '@plain-slate/demo'
import { isChange, onStandIn, onTwin, permitFor, planFor, sceneOf } from './scene.ts'
import { bytesAgainstMap, changedMarks, comparable, readableMarks, strayFiles } from './compare.ts'
import type { ShelfAt } from './shelf.ts'
import { shelfAt } from './shelf.ts'

const SHELVES = ['tarn', 'alder', 'fen'].map((id) => shelfAt(4096, id))
/** Far more than one takes: a case that hangs ends here. */
const MS_A_PLAN = 3000
/** What may be wished of a package that is not service software; that is wished only as what it is. */
const INTENTS = ['update', 'downgrade', 'relock', 'variant-change'] as const
const PLANS = Number(process.env['AGREES_PLANS'] ?? 120)

type Random = () => number
const pickOf =
  (random: Random) =>
  <T>(list: readonly T[]): T =>
    list[Math.floor(random() * list.length)] as T

/** A device of a family: of any build the shelf has for it, wrecked or changed now and then. */
function deviceOf(random: Random, { family, shelf }: ShelfAt): DemoDevice {
  const pick = pickOf(random)
  const fullOf = (line: DemoDevice['line']) =>
    shelf.filter(({ manifest }) => manifest.kind === 'full' && isOf(line, manifest))
  const usual = pick(
    DEMO_DEVICES.filter(({ line }) => line.family === family.id && fullOf(line).length > 0),
  )
  const full = fullOf(usual.line)
  const on = pick(full).manifest
  const other = pick(full).manifest
  const tarn = family.id === 'tarn'
  const system = modeOfKind(family, 'system')
  const wrecked = random() < 0.2
  const permission = random() < 0.6
  const lock = family.lock.opens === 'command' && random() < 0.5 ? 'open' : 'closed'
  return {
    ...usual,
    build: on.build,
    loader: tarn ? pick([6, 6, 7]) : (on.loaderVersion ?? 0),
    floor: tarn ? pick([5, 6]) : pick([2, 3, 4]),
    battery: 60 + Math.floor(random() * 40),
    mode: pick([system, modeOfKind(family, 'off')]),
    strange: wrecked ? { kernel: other.build } : {},
    modified: lock === 'open' ? (usual.modified ?? []) : [],
    torn: [],
    permission,
    pick: random(),
    more: {
      lock,
      merge: family.merge !== undefined && random() < 0.2 ? pick(['merging', 'staged']) : 'none',
    },
  }
}

const isOf = (line: DemoDevice['line'], { build, targets }: Manifest): boolean =>
  line.builds.includes(build) && targets.some(({ model }) => model === line.targets[0]?.model)

/** One seeded case; undefined when no plan comes of it. */
async function oneCase(seed: number) {
  const random = chances(seed)
  const pick = pickOf(random)
  const shelf = pick(SHELVES)
  const scene = await sceneOf(shelf, deviceOf(random, shelf))
  try {
    const evidence = new Map<string, Evidence>(
      Object.entries(scene.before.parts).flatMap(([name, { was }]): [string, Evidence][] =>
        was !== undefined && random() < 0.4 ? [[name, { kind: 'digest', sha256: was }]] : [],
      ),
    )
    const aim = pick(shelf.shelf).manifest
    const wish = {
      aim,
      evidence,
      intent: aim.kind === 'service' ? ('service' as const) : pick(INTENTS),
      permit: permitFor(scene.before.serial),
      keepData: random() < 0.5,
      way: pick([undefined, undefined, ...shelf.family.installs.map(({ from }) => from)]),
    }
    const plan = planFor(scene, wish)
    if (plan === undefined) return undefined
    const cut = cutOf(random, plan)
    const twin = onTwin(scene, plan, cut)
    const real = await onStandIn(scene, plan, cut, twin.phase)
    const wipes = twin.device.data.form === 'none'
    const marks = wipes ? readableMarks(scene) : changedMarks(scene)
    return {
      id: shelf.family.id,
      plan,
      twin,
      real,
      cut,
      bytes: bytesAgainstMap(scene),
      marks,
      wipes,
      stray: strayFiles(scene),
    }
  } finally {
    await scene.end()
  }
}

function cutOf(random: Random, plan: Plan): Cut | undefined {
  const changes = flatten(plan).commands.filter(isChange)
  const command = Math.floor(random() * changes.length)
  const kind = pickOf(random)(CUT_KINDS)
  const change = changes[command]
  if (random() < 0.15 || change === undefined) return undefined
  if (!('size' in change)) return { command, bytes: pickOf(random)([0, 1]), kind }
  const { size } = change
  if (change.kind === 'push' && random() < 0.4)
    return { command, bytes: size + pickOf(random)([1, 2]), kind }
  const at = [0, Math.floor(size / 8192) * 4096 + 100, size, size + 1, Math.floor(random() * size)]
  return { command, bytes: pickOf(random)(at), kind }
}

describe('rehearsal and run agree', () => {
  it(
    `on ${PLANS} seeded plans of three families with seeded cuts`,
    async () => {
      let plans = 0
      const reached = new Set<string>()
      for (let seed = 1; plans < PLANS; seed += 1) {
        const found = await oneCase(seed)
        if (found === undefined) continue
        plans += 1
        const { id, plan, twin, real, cut, bytes, marks, wipes, stray } = found
        reached.add(`${cut?.kind ?? 'no cut'} ${twin.phase}`)
        for (const { kind } of plan.steps) reached.add(`${id} ${kind}`)
        if (wipes) reached.add(`${id} wiped`)
        const at = `seed ${seed}, ${id}, ${JSON.stringify(cut)}`
        expect(comparable(real), at).toEqual(comparable(twin))
        expect(Math.abs(real.device.battery - twin.device.battery), at).toBeLessThan(1)
        expect({ at, bytes, marks, stray }).toEqual({ at, bytes: [], marks: [], stray: [] })
      }
      /* The cases reach what they are for: ends, deaths, every kind of cut, every operation. */
      expect([...reached].sort()).toEqual(
        expect.arrayContaining([
          'alder copy',
          'alder erase',
          'alder install',
          'alder lock',
          'alder push',
          'alder wiped',
          'battery ended',
          'battery lost',
          'cable ended',
          'computer ended',
          'fen erase',
          'fen lock',
          'fen merge',
          'fen push',
          'fen slot',
          'no cut ended',
          'tarn copy',
          'tarn drop',
          'tarn erase',
          'tarn install',
          'tarn wiped',
        ]),
      )
    },
    PLANS * MS_A_PLAN,
  )
})

describe('the lead device', () => {
  it('goes from 0ZC by way of loader 7 to 104; its flash is the images, its tickets are untouched', async () => {
    const shelf = shelfAt(256)
    const [lead] = DEMO_DEVICES
    if (lead === undefined) throw new Error('no lead device')
    const scene = await sceneOf(shelf, lead)
    try {
      const aim = shelf.shelf.find(({ manifest }) => manifest.build === 'H2.104.r4')?.manifest
      const plan =
        aim === undefined
          ? undefined
          : planFor(scene, {
              aim,
              evidence: new Map(),
              intent: 'update',
              keepData: true,
              way: undefined,
            })
      if (aim === undefined || plan === undefined) throw new Error('no plan')
      const real = await onStandIn(scene, plan, undefined, 'ended')
      expect(real.phase).toBe('ended')
      const { device } = scene
      const digests = aim.images.map(({ partition, size }) => {
        const start = device.file.starts[partition] ?? 0
        return [partition, device.flash.digest(start, start + size)]
      })
      expect(digests).toEqual(aim.images.map(({ partition, sha256 }) => [partition, sha256]))
      expect([device.model.loaderVersion, device.model.floors.all, device.facts().build]).toEqual([
        7,
        6,
        'H2.104.r4',
      ])
      expect(changedMarks(scene)).toEqual([])
    } finally {
      await scene.end()
    }
  }, 60_000)
})
