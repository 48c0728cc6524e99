/**
 * Looking at what hangs on a port while no run holds it: its facts, and whatever its mode gives of a tally of
 * the customer's things, a table, digests. Under an epoch of its own a look goes into the mode that shows
 * more and comes back, where the device's link permission lets it.
 */
import type { LookFound, Work } from '@plain-slate/api'
import type { DeviceFacts, Mode } from '@plain-slate/core'
import { LOOKING } from '@plain-slate/core'
import type { Address, Lease, Link } from '@plain-slate/link'
import { LinkLost, meet, waitFor } from '@plain-slate/link'

const LEASE: Lease = { run: 'look', epoch: LOOKING }
/** A device that does not come back from a restart by then is left to people. */
const BACK_MS = 120_000

type Look = Work['looks'][number]
type Met = { readonly link: Link; readonly facts: DeviceFacts }

/** What is seen at a port: a device's facts, or why what answers there cannot be used; both null: nobody. */
export type PortSight = { readonly facts: DeviceFacts | null; readonly odd: string | null }

/** Who answers at an address. */
export async function whoIsAt(
  address: Address,
  secret: string,
  signal: AbortSignal,
): Promise<PortSight> {
  const met = await meet(address, LEASE, secret, signal)
  if (met?.kind !== 'met') return { facts: null, odd: met?.kind === 'odd' ? met.why : null }
  met.link.close()
  return { facts: met.facts, odd: null }
}

/** Everything that can be read of the device there. */
export async function lookAt(address: Address, secret: string, look: Look): Promise<LookFound> {
  const lease = look.epoch === null ? LEASE : { ...LEASE, epoch: look.epoch }
  const met = await meet(address, lease, secret)
  if (met?.kind !== 'met') return { facts: null, met: [], table: null, digests: [], tally: null }
  const looking = new Looking(address, secret, lease, met)
  try {
    return await looking.find(look)
  } finally {
    looking.close()
  }
}

class Looking {
  readonly #address: Address
  readonly #secret: string
  readonly #lease: Lease
  #met: Met

  constructor(address: Address, secret: string, lease: Lease, met: Met) {
    this.#address = address
    this.#secret = secret
    this.#lease = lease
    this.#met = met
  }

  close(): void {
    this.#met.link.close()
  }

  /** What was found stays found when the link is lost on the way. */
  async find({ digests, into }: Look): Promise<LookFound> {
    const { facts } = this.#met
    let found: LookFound = { facts, met: [facts], table: null, digests: [], tally: null }
    try {
      const from = this.#met.facts.mode
      found = { ...found, tally: await tallyOver(this.#met.link) }
      const away = into !== null && into !== from && (await this.#restart(into))
      if (away) found = { ...found, met: [...found.met, this.#met.facts] }
      found = { ...found, table: await tableOver(this.#met.link) }
      if (found.table === null && !away) return found
      found = { ...found, digests: await digestsOver(this.#met.link, digests) }
      if (away) await this.#restart(from)
      return { ...found, facts: this.#met.facts }
    } catch (error) {
      if (error instanceof LinkLost) return found
      throw error
    }
  }

  /** Into another mode over the link; false where the device refuses, or does not come back. */
  async #restart(to: Mode): Promise<boolean> {
    const { link, facts } = this.#met
    const { answer } = await link.ask({ verb: 'restart', ...this.#lease, to })
    if (answer.answer === 'refused') return false
    link.close()
    const wanted = { serial: facts.serial, mode: to }
    const signal = AbortSignal.timeout(BACK_MS)
    const met = await waitFor(
      this.#address,
      this.#lease,
      this.#secret,
      wanted,
      () => undefined,
      signal,
    )
    if (met?.kind !== 'met') throw new LinkLost('it did not come back')
    this.#met = met
    return true
  }
}

/** The customer's things, counted by the device itself; a device that will not say tells nothing. */
async function tallyOver(link: Link): Promise<LookFound['tally']> {
  const { answer } = await link.ask({ verb: 'tally' })
  if (answer.answer !== 'tally') return null
  const { items, bytes, opens } = answer
  return { items, bytes, opens }
}

/** Both copies of the partition table as they lie on the disk, base64: what holds is decided by core. */
async function tableOver(link: Link): Promise<LookFound['table']> {
  const { answer, payload } = await link.ask({ verb: 'table' })
  if (answer.answer !== 'table') return null
  const { sectorBytes, diskBytes } = answer
  let from = 0
  const ranges = answer.ranges.map(({ at, length }) => {
    const bytes = Buffer.from(payload.subarray(from, from + length)).toString('base64')
    from += length
    return { at, bytes }
  })
  return { sectorBytes, diskBytes, ranges }
}

/** The device's own digests, one after the other: some GiB take a minute or two. A refused range is left out. */
async function digestsOver(link: Link, wanted: Look['digests']): Promise<LookFound['digests']> {
  const found: LookFound['digests'] = []
  for (const { partition, size } of wanted) {
    const { answer } = await link.ask({ verb: 'digest', partition, from: 0, to: size })
    if (answer.answer === 'digest') found.push({ partition, size, sha256: answer.sha256 })
  }
  return found
}
