/**
 * A SHA-256 that runs beside: bytes are handed to a worker thread, so that the archive's own digest and
 * those of its entries are made at the same time on two cores. The worker is six lines of plain
 * JavaScript, given as text, so that it starts the same from sources, bundles and tests.
 */
import { Worker } from 'node:worker_threads'

const WORKER = `
const { parentPort } = require('node:worker_threads')
const hash = require('node:crypto').createHash('sha256')
parentPort.on('message', (bytes) => {
  if (bytes === null) parentPort.postMessage(hash.digest('hex'))
  else { hash.update(bytes); parentPort.postMessage(null) }
})`

/** Chunks that may lie in the worker's queue: enough to keep it busy, no more memory than that. */
const QUEUE = 8

export type SideHash = {
  /** Hands bytes over; resolves when there is room for the next. */
  readonly update: (bytes: Uint8Array) => Promise<void>
  /** The digest of all that was handed over, as hex. Ends the worker. */
  readonly digest: () => Promise<string>
  /** Ends the worker without a digest. */
  readonly abandon: () => Promise<void>
}

export function sideHash(): SideHash {
  const worker = new Worker(WORKER, { eval: true })
  let queued = 0
  let room: (() => void) | undefined
  let finished: ((hex: string) => void) | undefined
  let failed: ((error: Error) => void) | undefined
  worker.on('message', (hex: string | null) => {
    if (hex !== null) return finished?.(hex)
    queued -= 1
    room?.()
    room = undefined
  })
  worker.on('error', (error) => failed?.(error))
  const abandon = async () => void (await worker.terminate())
  return {
    abandon,
    async update(bytes) {
      worker.postMessage(bytes)
      queued += 1
      if (queued >= QUEUE) await new Promise<void>((resolve) => (room = resolve))
    },
    async digest() {
      const hex = new Promise<string>((resolve, reject) => {
        finished = resolve
        failed = reject
      })
      worker.postMessage(null)
      return hex.finally(abandon)
    },
  }
}
