/** What a twin and a simulated device must agree in after a plan, and the real bytes with what the state says. */
import { existsSync, readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { BLOCK_BYTES } from '@plain-slate/core'
import { bytesOf } from '@plain-slate/demo'
import type { Ended, Scene } from './scene.ts'

/** What must be equal of two devices. */
export const comparable = ({ device, journal }: Ended) => ({
  mode: device.mode,
  lock: device.lock,
  floors: device.floors,
  permission: device.permission,
  loaderVersion: device.loaderVersion,
  data: device.data,
  outcome: device.outcome,
  limits: device.limits,
  slots: device.slots,
  merge: device.merge,
  files: device.files,
  incoming: device.incoming,
  confirmBy: device.confirmBy === undefined,
  account: device.account,
  marks: device.marks,
  fresh: device.fresh,
  maps: Object.fromEntries(Object.entries(device.parts).map(([name, { map }]) => [name, map])),
  journal: journal.map(({ kind, command }) => `${kind} ${command}`),
})

/** Files of its stores that its state does not know, or that are missing; empty: none. */
export function strayFiles({ device, flashPath }: Scene): readonly string[] {
  const folder = flashPath.replace(/\.flash$/, '.files')
  const { files, incoming } = device.model
  const known = [...files, ...(incoming === undefined ? [] : [incoming])]
  const there = existsSync(folder)
    ? readdirSync(folder).flatMap((store) =>
        readdirSync(join(folder, store)).map((name) => `${store}/${name}`),
      )
    : []
  const wanted = known.map(({ store, name }) => `${store}/${name}`)
  return [
    ...there.filter((one) => !wanted.includes(one)),
    ...wanted.filter((one) => !there.includes(one)),
  ]
}

/** A block of zeros, as it is after an erase. */
const NOTHING = Buffer.alloc(BLOCK_BYTES)

/** The real bytes against what the map says of them; empty: they agree. */
export function bytesAgainstMap(scene: Scene): readonly string[] {
  const { device, flashBefore, shelf } = scene
  const flash = readFileSync(scene.flashPath)
  return Object.entries(device.model.parts).flatMap(([name, { map }]) =>
    map.flatMap((run) =>
      blocksOf(run).flatMap((block) => {
        const at = (device.file.starts[name] ?? 0) + block * BLOCK_BYTES
        const real = flash.subarray(at, at + BLOCK_BYTES)
        const old = flashBefore.subarray(at, at + BLOCK_BYTES)
        const origin = run.kind === 'image' ? shelf.origins.get(run.image) : undefined
        const from = run.kind === 'image' ? (run.at + block - run.from) * BLOCK_BYTES : 0
        const image = origin === undefined ? undefined : bytesOf(origin, from, from + BLOCK_BYTES)
        const agrees = {
          old: () => real.equals(old),
          image: () => image !== undefined && real.equals(image),
          torn: () => !real.equals(old),
          erased: () => real.equals(NOTHING.subarray(0, real.length)),
        }[run.kind]
        return agrees() ? [] : [`${name} block ${block}: not ${run.kind}`]
      }),
    ),
  )
}

const blocksOf = ({ from, to }: { readonly from: number; readonly to: number }) =>
  Array.from({ length: to - from }, (_, index) => from + index)

/** Marked customer ranges that changed; empty: every bit is as it was. */
export function changedMarks(scene: Scene): readonly string[] {
  const flash = readFileSync(scene.flashPath)
  return scene.device.file.marks.flatMap(({ from, to }) =>
    flash.subarray(from, to).equals(scene.flashBefore.subarray(from, to))
      ? []
      : [`${from} to ${to}`],
  )
}

/** Marked customer ranges of which a byte can still be read; empty: all are gone. */
export function readableMarks(scene: Scene): readonly string[] {
  const flash = readFileSync(scene.flashPath)
  return scene.device.file.marks.flatMap(({ from, to }) =>
    flash.subarray(from, to).every((byte) => byte === 0) ? [] : [`${from} to ${to}`],
  )
}
