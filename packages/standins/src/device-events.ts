/** What a simulated device says by itself as its state changes: what its screen shows now, what it waits for. */
import type { Asks, DeviceEvent, DeviceModel, Family } from '@plain-slate/core'

/** What it waits for a hand to do, in its family's words; undefined: for nothing. */
export function promptOf(
  { installs, goOn }: Family,
  { confirmBy, key, mode }: DeviceModel,
): { readonly asks: Asks; readonly text: string } | undefined {
  const confirm = installs.find((rule) => rule.mode === mode)?.confirm
  if (confirmBy !== undefined) return { asks: 'confirm', text: confirm?.say ?? '' }
  return key === 'asked' ? { asks: 'go-on', text: goOn?.say ?? '' } : undefined
}

/** The events of a change, in order. A device that waits for a hand says what its family's installs say. */
export function eventsBetween(
  family: Family,
  before: DeviceModel,
  after: DeviceModel,
): readonly DeviceEvent[] {
  const now = promptOf(family, after)
  const asks = now !== undefined && promptOf(family, before)?.asks !== now.asks
  const shows = after.shows !== before.shows ? after.shows : undefined
  return [
    ...(shows === undefined ? [] : [{ event: 'screen', text: shows } as const]),
    ...(asks ? [{ event: 'prompt', ...now } as const] : []),
  ]
}

/** What can be listened to, until the listening is ended. */
type Speaks = { readonly listen: (listener: (event: DeviceEvent) => void) => () => void }

/** Says on one stream what a device says by itself: at once, or when the request under way is through. */
export class Voice {
  #end: () => void = () => undefined
  #later: DeviceEvent[] | undefined
  readonly #device: Speaks
  readonly #tell: (event: DeviceEvent) => void

  constructor(device: Speaks, tell: (event: DeviceEvent) => void) {
    this.#device = device
    this.#tell = tell
  }

  rises(): void {
    this.#end = this.#device.listen((event) => {
      if (this.#later === undefined) this.#tell(event)
      else this.#later.push(event)
    })
  }
  falls = (): void => this.#end()

  /** A request is under way, which takes its time. */
  waits(): void {
    this.#later = []
  }
  speaks(): void {
    const events = this.#later ?? []
    this.#later = undefined
    for (const event of events) this.#tell(event)
  }
}
