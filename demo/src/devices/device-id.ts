/** The id that is fused into a demo device, made from its serial number: four groups of four hex digits. */
import { createHash } from 'node:crypto'

export function deviceIdOf(serial: string): string {
  const hex = createHash('sha256').update(`device id of ${serial}`).digest('hex').toUpperCase()
  return [0, 4, 8, 12].map((at) => hex.slice(at, at + 4)).join('-')
}
