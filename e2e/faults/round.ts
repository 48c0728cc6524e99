/**
 * One round: a slip is made ready and its run begun, faults come one after the other at moments of the seed's
 * choosing, people take up what stopped, and at the end everything that must hold is held.
 */
import type { ApiError, EventLine, RunShown } from '@plain-slate/api'
import { followed } from '@plain-slate/core'
import type { Dice } from './dice.ts'
import { diceOf } from './dice.ts'
import type { FaultShop } from './fault-shop.ts'
import type { Kind } from './kinds.ts'

export type Tried = {
  readonly kind: string
  /** The step under way when it came, by its kind. */
  readonly during: string
  /** What did not hold afterwards; none: all of it did. */
  readonly lost: readonly string[]
}
export type Outcome = {
  readonly seed: number
  readonly tried: readonly Tried[]
  readonly takeUps: number
  readonly notes: number
  readonly lost: readonly string[]
}

/** What a plan says of a device that holds all of its package. */
const ALL_THERE = 'everything of it stands on the device already'
/** After a fault a run goes on by itself, or is taken up, within this. */
const PATIENCE_MS = 90_000

/** Percent of charge of the lead device as it comes in. */
const CAME_IN = 71

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const isRun = (shown: RunShown | ApiError | undefined): shown is RunShown =>
  shown !== undefined && 'state' in shown

/** Plays one round of these kinds of fault, in a shop whose device is as it came in. */
export async function playRound(
  shop: FaultShop,
  seed: number,
  kinds: readonly Kind[],
): Promise<Outcome> {
  await shop.resetDevice()
  const round = new Round(shop, diceOf(seed))
  const tried: Omit<Tried, 'lost'>[] = []
  try {
    await round.begin()
    for (const kind of kinds) {
      const during = await round.faultComes(kind)
      if (during === undefined) break
      tried.push({ kind: kind.name, during })
    }
    await round.toItsEnd()
  } catch (error) {
    round.lost.push(error instanceof Error ? error.message : String(error))
  }
  const amiss = await round.amiss().catch((error: unknown) => [String(error)])
  const lost = [...round.lost, ...amiss]
  await round.close()
  const { takeUps, notes } = round
  return { seed, tried: tried.map((one) => ({ ...one, lost })), takeUps, notes: notes.length, lost }
}

class Round {
  readonly #shop: FaultShop
  readonly #dice: Dice
  #number = ''
  #id = ''
  #inTheWay = ''
  /** Everything stood on the device when it was planned anew: only its start is left, by hand. */
  #written = false
  takeUps = 0
  /** Notes that the server acknowledged. */
  readonly notes: string[] = []
  readonly lost: string[] = []

  constructor(shop: FaultShop, dice: Dice) {
    this.#shop = shop
    this.#dice = dice
  }

  async begin(): Promise<void> {
    const { whole } = this.#shop
    await this.#until(
      'the device is seen as it came in',
      async () => (await whole.port('P2')).seen?.battery === CAME_IN,
    )
    const { number, digest } = await whole.ready()
    this.#number = number
    await this.#start(digest)
  }

  async #start(digest: string): Promise<void> {
    const run = await this.#shop.whole.call<RunShown | ApiError>(
      'POST',
      `/api/slips/${this.#number}/start`,
      { digest },
    )
    if ('sentence' in run) throw new Error(`${run.sentence} ${run.remedy}`)
    this.#id = run.id
  }

  /** Waits a moment, has the fault come, and answers at which step; undefined: the run was over before. */
  async faultComes(kind: Kind): Promise<string | undefined> {
    const due = Date.now() + this.#dice.whole(50, 900)
    const look = () => this.#goOn().catch((error: unknown) => void this.#met(error))
    let run = await look()
    while (Date.now() < due || run?.state !== 'running') {
      if (run?.state === 'ended' || this.#written) return undefined
      await pause(30)
      run = await look()
    }
    await this.#note()
    const step = run.steps.find(({ number }) => number === run.step)
    try {
      await kind.hurt({ shop: this.#shop, run, dice: this.#dice })
    } catch (error) {
      this.lost.push(`${kind.name}: ${error instanceof Error ? error.message : String(error)}`)
    }
    await this.#shop.alive()
    return step?.kind ?? '?'
  }

  async toItsEnd(): Promise<void> {
    try {
      const over = async () => this.#written || (await this.#goOn())?.state === 'ended'
      await this.#until('the run ends', over)
    } catch (error) {
      this.lost.push(error instanceof Error ? error.message : String(error))
    }
  }

  /** One look at the run as a person has it, and what they would do then. */
  async #goOn(): Promise<RunShown | undefined> {
    const run = await this.#shop.run(this.#id)
    if (!isRun(run)) return undefined
    const post = (word: string, body = {}) =>
      this.#shop.ask<RunShown | ApiError>('POST', `/api/runs/${this.#id}/${word}`, body)
    if (run.asked?.ask === 'go-on')
      await this.#shop.whole.hands({ kind: 'confirm', serial: run.serial })
    if (run.asked !== null) await post('done', { command: run.asked.command })
    if (run.state === 'running' && run.word !== 'hands-off') await this.#shop.hands()
    if (run.state === 'stopped' && run.why?.code === 'journal') await this.#planAnew()
    else if (run.state === 'stopped' || run.ownerless) await this.#takeUp(post)
    return run
  }

  async #takeUp(post: (word: string) => Promise<RunShown | ApiError | undefined>): Promise<void> {
    const taken = await post('take-up')
    if (taken === undefined) return
    if ('state' in taken) this.takeUps += 1
    else if (taken.code === 'run.over') await this.#planAnew()
  }

  /** The way on where a run cannot be taken up: off its port, and planned from what the device is now. */
  async #planAnew(): Promise<void> {
    await this.#shop.hands()
    await this.#shop.ask('POST', `/api/runs/${this.#id}/put-away`)
    const { whole } = this.#shop
    await this.#until('the device is in its loader', async () => {
      await this.#shop.hands()
      return (await whole.port('P2')).seen !== null
    })
    const { digest } = await whole.ready('P2', this.#number).catch((error: unknown) => {
      if (String(error).includes(ALL_THERE)) this.#written = true
      throw error
    })
    await this.#start(digest)
  }

  async #note(): Promise<void> {
    const text = `note ${this.notes.length} ${this.#dice.whole(0, 1e9)}`
    const said = await this.#shop.ask<object>('POST', `/api/slips/${this.#number}/notes`, { text })
    if (said !== undefined && !('code' in said)) this.notes.push(text)
  }

  async #until(what: string, is: () => Promise<boolean>): Promise<void> {
    const late = Date.now() + PATIENCE_MS
    for (;;) {
      if (await is().catch((error: unknown) => this.#met(error))) return
      if (Date.now() > late) {
        const run = await this.#shop.run(this.#id)
        const at = isRun(run) ? `${run.state}, ${run.word}, step ${run.step}` : 'nobody answers'
        throw new Error(`never: ${what} (${at}) ${this.#inTheWay}`)
      }
      await pause(50)
    }
  }

  /** The run off its port and the slip over, so that the next round may have the device. */
  async close(): Promise<void> {
    await this.#shop.ask('POST', `/api/runs/${this.#id}/put-away`)
    const over = { state: 'stopped', reason: 'the round is over' }
    await this.#shop.ask('POST', `/api/slips/${this.#number}/state`, over)
  }

  /** Something in the way that may pass: the last is told if it does not. */
  #met(error: unknown): false {
    this.#inTheWay = error instanceof Error ? error.message : String(error)
    return false
  }

  /** What does not hold at the end: the device, the journal's mirror, notes that were acknowledged. */
  async amiss(): Promise<readonly string[]> {
    let history: readonly EventLine[] = []
    await this.#until('the slip tells its history', async () => {
      const told = await this.#shop.ask<EventLine[]>('GET', `/api/slips/${this.#number}/history`)
      if (Array.isArray(told)) history = told
      return Array.isArray(told)
    })
    const texts = history.flatMap((line) => Object.values(line.texts))
    const gone = this.notes.filter((note) => !texts.includes(note))
    const run = await this.#shop.run(this.#id)
    const mirrored = isRun(run) ? run.journal : -1
    const journal = this.#shop.journalOf(this.#id)
    /* One that was damaged on purpose is not mirrored any further. */
    const apart = followed(journal).odd === undefined && mirrored !== journal.length
    return [
      ...this.#shop.wrong(),
      ...gone.map((note) => `acknowledged and gone: ${note}`),
      ...(apart ? [`journal ${journal.length}, mirror ${mirrored}`] : []),
    ]
  }
}
