/**
 * The address of a device's stream over TCP, as people write it: `tcp:HOST:PORT`. Reads text; gives host and port, or
 * undefined for anything else. The link secret goes to whoever answers there, so that a page may name this machine's own
 * addresses alone; another host is named by whoever keeps the bench's file.
 */
export type TcpAddress = { readonly kind: 'tcp'; readonly host: string; readonly port: number }

const TCP = /^tcp:([\w.-]+|\[[0-9a-f:]+\]):(\d{1,5})$/
const PORT_MOST = 65_535

/** Reads `tcp:HOST:PORT`; undefined for anything else. An IPv6 host stands in brackets and comes without them. */
export function readTcpAddress(text: string): TcpAddress | undefined {
  const [, written, port] = TCP.exec(text) ?? []
  if (written === undefined || Number(port) < 1 || Number(port) > PORT_MOST) return undefined
  return { kind: 'tcp', host: written.replace(/^\[|\]$/g, ''), port: Number(port) }
}

/** Whether an address is this machine's own: 127.0.0.0/8, ::1, or its name (RFC 6761). */
export const isOwnAddress = ({ host }: TcpAddress): boolean =>
  host === 'localhost' || host === '::1' || /^127(\.\d{1,3}){3}$/.test(host)
