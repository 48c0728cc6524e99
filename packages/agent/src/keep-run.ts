/**
 * One run in this agent's hands: claimed, driven from its journal, mirrored and shown to the server
 * whenever that is there. The server's death changes nothing here; only a newer owner at the device does.
 */
import { join } from 'node:path'
import type { ShownRun, Work } from '@plain-slate/api'
import type {
  Command,
  DeviceFacts,
  JournalEntry,
  Lead,
  RunState,
  StopReason,
} from '@plain-slate/core'
import { begin, takeUp } from '@plain-slate/core'
import type { Address, Driving, ImageBytes, RunNews } from '@plain-slate/link'
import { driveRun, meet, pause } from '@plain-slate/link'
import type { Vault } from '@plain-slate/vault'
import { brokenBytes } from './broken-bytes.ts'
import type { Journal } from './journal.ts'
import { openJournal } from './journal.ts'
import type { ServerSide } from './server.ts'

type WorkRun = Work['runs'][number]
/** What the server gave with the lease. `commands` are the run's, `places` where its images' bytes lie. */
export type Claim = {
  readonly stop: { readonly asked: number; readonly met: number }
  readonly epoch: number
  readonly commands: readonly Command[]
  readonly journal: readonly JournalEntry[]
  readonly places: readonly {
    readonly image: string
    readonly archive: string
    readonly offset: number
    readonly size: number
  }[]
  readonly leads: readonly Lead[]
  readonly shown: ShownRun | null
}

/** A run as its port has it: told what people want, left, or waited for. */
export type Keeper = {
  readonly run: string
  readonly epoch: number
  /** What people want of it now: answers, a stop. */
  readonly wanted: (work: WorkRun) => void
  readonly abandon: () => void
  readonly over: Promise<void>
}

/** Everything one run needs; nothing of it is shared with the run of another port. */
export type KeepPlan = {
  readonly agent: string
  readonly folder: string
  readonly linkSecret: string
  readonly address: Address
  readonly server: ServerSide
  readonly vault: Vault
  readonly work: WorkRun
  readonly claim: Claim
  /** What the device said of itself when it was met: the port shows it. */
  readonly met: (facts: DeviceFacts) => void
}

/** Between two reports at most; and how long a server that is away is left alone. */
const REPORT_MS = 200
const AWAY_MS = 1000
/** Characters of a fault that are told. */
const FAULT_MOST = 200

/** Drives the run. Throws where its journal cannot be opened. */
export function keepRun(plan: KeepPlan): Keeper {
  const { work, claim, folder } = plan
  const journal = openJournal(join(folder, 'runs', `${work.id}.jsonl`), claim.journal)
  return keeperOf(plan, new Keeping(plan, journal))
}

/** A run that cannot even be begun at this bench: it is told as stopped, with what broke. */
export function brokenKeeper(plan: KeepPlan, error: unknown): Keeper {
  const nothing: Journal = {
    entries: () => plan.claim.journal,
    append: () => undefined,
    close: () => undefined,
  }
  return keeperOf(plan, new Keeping(plan, nothing, error))
}

/** `run` starts at once: what is heard before the first order is carried out is heard by it. */
const keeperOf = ({ work, claim }: KeepPlan, keeping: Keeping): Keeper => ({
  run: work.id,
  epoch: claim.epoch,
  wanted: (now) => keeping.hear(now),
  abandon: () => keeping.abandon(),
  over: keeping.run(),
})

const NOTHING_SHOWN: ShownRun = {
  phase: { kind: 'doing' },
  next: 0,
  got: 0,
  at: 0,
  runAt: 0,
  stepAt: 0,
  waiting: null,
  says: null,
  losses: 0,
}

class Keeping {
  readonly #plan: KeepPlan
  readonly #journal: Journal
  readonly #answered = new Map<string, string>()
  readonly #asking = new Map<string, (evidence: string) => void>()
  readonly #gone = new AbortController()
  #driving: Driving | undefined
  #shown: ShownRun
  #news = 1
  /** Entries the server holds. */
  #mirrored: number
  #superseded = false
  /** Why it cannot be begun here. */
  readonly #broken: unknown
  /** The newest stop that was heard; older ones are bygone. */
  #heard: number
  /** True once the device was met under this epoch: whoever drove it before goes on no more. */
  #met = false
  #standsStill = false
  /** How often the command under way was lost, as the last turn told it. */
  #losses = 0

  constructor(plan: KeepPlan, journal: Journal, broken?: unknown) {
    this.#plan = plan
    this.#broken = broken
    this.#heard = plan.claim.stop.met
    this.#journal = journal
    this.#mirrored = Math.min(plan.claim.journal.length, journal.entries().length)
    this.#shown = {
      ...(plan.claim.shown ?? NOTHING_SHOWN),
      phase: { kind: 'doing' },
      waiting: null,
    }
    this.#answers(plan.work)
  }

  /** What people want of it now. The same words may come again and again: each counts once. */
  hear(work: WorkRun): void {
    this.#answers(work)
    this.#stopAt(work.stop)
  }

  /** Answers come under the command's place: one for another command waits until that is asked. */
  #answers({ answers }: WorkRun): void {
    for (const [command, evidence] of Object.entries(answers)) {
      this.#answered.set(command, evidence)
      this.#asking.get(command)?.(evidence)
    }
  }

  /** An order to stop, by its number: what was heard before is not heard again. */
  #stopAt(order: number): void {
    if (order <= this.#heard) return
    this.#heard = order
    this.#news += 1
    this.#driving?.stop()
  }

  /** As if this process had died: nothing more is reported, and the journal is left where it is. */
  abandon(): void {
    this.#gone.abort()
    this.#driving?.abandon()
  }

  /** Driving and reporting go on side by side: a server that is away holds up no write. */
  async run(): Promise<void> {
    const over = this.#drive()
      .catch((error: unknown) => this.#fail(error))
      .then(() => this.#meetOnce())
      .finally(() => (this.#standsStill = true))
    await Promise.all([over, this.#report()])
    this.#journal.close()
  }

  /**
   * From the journal, whatever the server shows: what was durable here is what was sent. A run without a
   * journal begins; every other is taken up, and what was in doubt is looked at first.
   */
  async #drive(): Promise<void> {
    const { claim, work, address, linkSecret, vault } = this.#plan
    if (this.#broken !== undefined) throw this.#broken
    const { commands } = claim
    const entries = this.#journal.entries()
    const turn =
      entries.length === 0
        ? begin(work.serial, claim.epoch, commands)
        : takeUp(work.serial, claim.epoch, commands, entries)
    const broken = await brokenBytes(vault, claim.places, commands.slice(turn.state.next))
    if (broken !== undefined) return this.#stopOn(broken)
    this.#driving = driveRun(turn, {
      address,
      secret: linkSecret,
      run: work.id,
      bytes: this.#bytes,
      leads: claim.leads,
      journal: (entry) => {
        this.#journal.append({ ...entry, at: this.#shown.at })
        this.#news += 1
        return Promise.resolve()
      },
      ask: (_command, index, signal) => this.#ask(String(index), signal),
      tell: (news) => this.#tell(news),
    })
    /* A stop that stood as the run was claimed, or came since, is met before anything is sent. */
    this.#stopAt(Math.max(work.stop, openStop(claim.stop)))
    if (this.#heard > claim.stop.met) this.#driving.stop()
    await this.#driving.over
  }

  /**
   * Whoever drove the run before goes on until it meets a higher epoch: a run that stands still before its
   * device was met under this one says hello once, so that nobody writes any more.
   */
  async #meetOnce(): Promise<void> {
    if (this.#met || this.#gone.signal.aborted) return
    const { address, linkSecret, work, claim } = this.#plan
    const lease = { run: work.id, epoch: claim.epoch }
    const met = await meet(address, lease, linkSecret, this.#gone.signal)
    if (met?.kind === 'met') met.link.close()
  }

  /** It stands still before its first verb: what it still needs is not what it was. */
  #stopOn(why: StopReason): void {
    this.#shown = { ...this.#shown, phase: { kind: 'stopped', why }, waiting: null }
    this.#news += 1
  }

  /** A fault of this bench ends the run in a state that is shown, with its reason; the log has it whole. */
  #fail(error: unknown): void {
    console.error(error)
    const what = (error instanceof Error ? error.message : String(error)).slice(0, FAULT_MOST)
    const phase = { kind: 'stopped', why: { kind: 'fault', what } } as const
    this.#shown = { ...this.#shown, phase, waiting: null }
    this.#news += 1
  }

  /** An answer that is known is not asked again; one that never comes ends with the signal. */
  #ask(command: string, signal: AbortSignal): Promise<string | undefined> {
    const known = this.#answered.get(command)
    if (known !== undefined) return Promise.resolve(known)
    return new Promise((resolve) => {
      this.#asking.set(command, resolve)
      signal.addEventListener('abort', () => resolve(undefined), { once: true })
    })
  }

  /** Bytes of an image: a range of an archive in the vault. */
  readonly #bytes: ImageBytes = (image, from, to) => {
    const place = this.#plan.claim.places.find((one) => one.image === image)
    const { vault } = this.#plan
    return (async function* () {
      if (from === to) return
      if (place === undefined)
        throw new Error(`the shelf holds no bytes of image ${image.slice(0, 8)}`)
      const range = { from: place.offset + from, to: place.offset + to }
      for await (const part of await vault.read(place.archive, range)) yield part as Uint8Array
    })()
  }

  /** Folds news into what is shown. Times are the device's own, ms of model time. */
  #tell(news: RunNews): void {
    const shown = this.#shown
    switch (news.kind) {
      case 'turn':
        this.#shown = afterTurn(shown, news.state, this.#losses)
        this.#losses = news.state.losses
        break
      case 'progress':
        this.#shown = { ...shown, got: news.got, at: news.at, ...firstTime(shown, news.at) }
        break
      case 'time':
        this.#shown = { ...shown, at: news.at, ...firstTime(shown, news.at) }
        break
      case 'met':
        this.#met = true
        this.#plan.met(news.facts)
        this.#shown = {
          ...shown,
          waiting: null,
          says: null,
          at: news.at,
          ...firstTime(shown, news.at),
        }
        break
      case 'says':
        this.#shown = { ...shown, says: news.text }
        break
      case 'waiting': {
        const seen = news.seen ?? null
        const waiting = { mode: news.mode ?? null, seen }
        if (JSON.stringify(shown.waiting) === JSON.stringify(waiting)) return
        this.#shown = { ...shown, waiting }
      }
    }
    this.#news += 1
  }

  /** Reports while there is news, and once more when the run stands still. */
  async #report(): Promise<void> {
    let reported = 0
    for (;;) {
      const over = this.#standsStill
      if (this.#news !== reported && !this.#superseded) {
        const upTo = this.#news
        const told = await this.#tellServer()
        if (told) reported = upTo
        else await pause(AWAY_MS, this.#gone.signal)
      }
      const done = over && (this.#news === reported || this.#superseded)
      if (done || this.#gone.signal.aborted) return
      await pause(REPORT_MS, this.#gone.signal)
    }
  }

  /** One report; false: the server is away, and the same is told again. Entries go out once and in order. */
  async #tellServer(): Promise<boolean> {
    const { agent, server, work, claim } = this.#plan
    const from = this.#mirrored
    const entries = this.#journal.entries().slice(from)
    const heard = this.#heard
    const shown = this.#shown
    const body = { agent, run: work.id, epoch: claim.epoch, from, entries, heard, shown }
    const told = await server.call('agentReport', body)
    /* A later word stands at the server: another drives it, or nobody is to. */
    if (told.kind === 'refused') {
      this.#superseded = true
      this.#driving?.stop()
    }
    if (told.kind === 'answered') this.#mirrored = from + entries.length
    return told.kind !== 'away'
  }
}

/** The number of a stop that stands as a run is claimed; 0: none does. */
const openStop = ({ asked, met }: Claim['stop']): number => (asked > met ? asked : 0)

/** The first time the device tells is when the run, and its first step, began. */
const firstTime = ({ runAt, stepAt }: ShownRun, at: number) =>
  runAt === 0 ? { runAt: at, stepAt: at } : { runAt, stepAt }

/**
 * What is shown after a turn of the reducer. A step begins when the next command does; `before`: losses of the command
 * under way that were counted already.
 */
function afterTurn(shown: ShownRun, state: RunState, before: number): ShownRun {
  const moved = state.next !== shown.next
  return {
    ...shown,
    phase: state.phase,
    next: state.next,
    losses: shown.losses + Math.max(0, state.losses - before),
    ...(moved ? { got: 0, stepAt: shown.at } : {}),
    ...(state.phase.kind === 'doing' ? { waiting: null } : {}),
  }
}
