/** Devices as the agent's tests play them: a TCP port that says to each request what the test says. */
import { createServer } from 'node:net'
import type { AddressInfo, Socket } from 'node:net'
import type { DeviceFacts, Json } from '@plain-slate/core'
import { encodeFrame, frameDecoder } from '@plain-slate/core'
import type { Address } from '@plain-slate/link'
import { SERIAL } from './played-server.ts'

export const FACTS: DeviceFacts = {
  model: 'BRAK-H2K',
  board: 'r4',
  chipset: 'Slate 2',
  storageGb: 32,
  region: 'HI',
  carrier: 'O',
  serial: SERIAL,
  mode: 'loader',
  loaderVersion: 6,
  floor: 5,
  bootLock: 'closed',
  batteryPercent: 71,
  outcome: 'normal',
  returns: 0,
  scale: 256,
}

type Say = (header: Readonly<Record<string, Json>>) => object | undefined

/** A device that answers hello and facts with its facts, and nothing else. */
export const saysFacts =
  (facts: object = FACTS): Say =>
  ({ verb }) =>
    verb === 'hello' || verb === 'facts' ? { answer: 'facts', facts } : undefined

export type FarEnd = {
  readonly address: Address
  /** Every request that came, in order. */
  readonly heard: Readonly<Record<string, Json>>[]
  readonly close: () => void
}

/** Listens; `say` answers a request, or is silent with undefined. */
export async function farEnd(say: Say): Promise<FarEnd> {
  const heard: Readonly<Record<string, Json>>[] = []
  const sockets = new Set<Socket>()
  const server = createServer((socket) => {
    sockets.add(socket)
    const decoder = frameDecoder()
    socket.on('error', () => socket.destroy())
    socket.on('data', (bytes: Uint8Array) => {
      const frames = decoder.push(bytes)
      if (!frames.ok) return void socket.destroy()
      for (const { header } of frames.value) {
        heard.push(header)
        const said = say(header)
        if (said !== undefined) socket.write(encodeFrame({ ...said, id: header['id'] ?? 0, at: 1 }))
      }
    })
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  return {
    address: { kind: 'tcp', host: '127.0.0.1', port },
    heard,
    close: () => {
      for (const socket of sockets) socket.destroy()
      server.close()
    },
  }
}
