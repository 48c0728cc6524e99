/** Ports of this machine that nothing listens on. */
import { createServer } from 'node:net'
import type { AddressInfo } from 'node:net'

export async function freePorts(count: number): Promise<readonly number[]> {
  const servers = Array.from({ length: count }, () => createServer().listen(0, '127.0.0.1'))
  await Promise.all(servers.map((one) => new Promise((resolve) => one.once('listening', resolve))))
  const ports = servers.map((one) => (one.address() as AddressInfo).port)
  await Promise.all(servers.map((one) => new Promise((resolve) => one.close(resolve))))
  return ports
}
