/**
 * Where a device's stream comes from: a TCP address, or a command whose pipes it is. Commands come from
 * a file on the machine only, as an argument vector, and no shell ever reads them.
 */
import { spawn } from 'node:child_process'
import { connect } from 'node:net'
import { Duplex } from 'node:stream'
import type { TcpAddress } from '@plain-slate/core'

export type Address =
  TcpAddress | { readonly kind: 'command'; readonly argv: readonly [string, ...string[]] }

/** A connection that is not there by then is not there. */
const CONNECT_MS = 2000

/** Opens a stream; undefined when nothing is there. */
export function openStream(address: Address): Promise<Duplex | undefined> {
  return address.kind === 'tcp' ? openTcp(address.host, address.port) : openCommand(address.argv)
}

function openTcp(host: string, port: number): Promise<Duplex | undefined> {
  return new Promise((resolve) => {
    const socket = connect({ host, port, noDelay: true })
    const late = setTimeout(() => socket.destroy(), CONNECT_MS)
    socket.once('connect', () => {
      clearTimeout(late)
      socket.removeAllListeners('close')
      resolve(socket)
    })
    socket.on('error', () => socket.destroy())
    socket.once('close', () => {
      clearTimeout(late)
      resolve(undefined)
    })
  })
}

function openCommand([program, ...args]: readonly [string, ...string[]]): Promise<Duplex> {
  const child = spawn(program, args, { stdio: ['pipe', 'pipe', 'inherit'], shell: false })
  const stream = Duplex.from({ readable: child.stdout, writable: child.stdin })
  child.on('error', () => stream.destroy())
  child.on('exit', () => stream.destroy())
  stream.on('error', () => child.kill())
  stream.on('close', () => child.kill())
  return Promise.resolve(stream)
}
