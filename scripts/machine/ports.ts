/** Free TCP ports on loopback. */
import { createServer } from 'node:net'
import type { AddressInfo } from 'node:net'

/** A port that nobody listens on now; `wanted` when it is free. */
export async function freePort(wanted = 0): Promise<number> {
  return (await bind(wanted)) ?? (await bind(0)) ?? 0
}

/** True when the port can be listened on. */
export async function isFree(port: number): Promise<boolean> {
  return (await bind(port)) !== undefined
}

/** True for a port that browsers refuse to open: the Fetch standard's list, which Node keeps to as well. */
export const isBlocked = (port: number): Promise<boolean> =>
  fetch(`http://127.0.0.1:${port}/`, { method: 'HEAD' }).then(
    () => false,
    ({ cause }: { readonly cause?: unknown }) =>
      cause instanceof Error && cause.message === 'bad port',
  )

function bind(port: number): Promise<number | undefined> {
  return new Promise((resolve) => {
    const server = createServer()
    server.once('error', () => resolve(undefined))
    server.listen(port, '127.0.0.1', () => {
      const taken = (server.address() as AddressInfo).port
      server.close(() => resolve(taken))
    })
  })
}
