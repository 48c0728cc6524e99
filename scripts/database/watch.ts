/**
 * What is done about a database that does not answer. Reads how it answered, and since when; gives a signal or a
 * sentence. One that recovers (a session of it was killed, the machine lost its power) is left to recover. One that was
 * told from outside to shut down waits for its users, who would not go: it is ended the fast way, so that it is dead, seen
 * dead, and started again. What does not end is ended the hard way: its log makes that good at the next start.
 */
export type Answering = 'well' | 'recovers' | 'shuts down' | 'away'

/** SQLSTATE "cannot connect now"; what it does meanwhile stands in the sentence alone. */
const CANNOT_NOW = '57P03'
const SQLSTATE = /^[0-9A-Z]{5}$/

/** How it answered, by the code and the sentence (in English: the cluster's locale is C) of its refusal. */
export function answering(code: string, sentence: string): Answering {
  /* Whoever refuses with any other SQLSTATE (too many users, say) lives. */
  if (code !== CANNOT_NOW) return SQLSTATE.test(code) ? 'well' : 'away'
  return sentence.includes('shutting down') ? 'shuts down' : 'recovers'
}

export type DatabaseWatch = {
  /** Since when it answers so, in ms of a clock that does not jump. */
  readonly is: Answering
  readonly since: number
  /** What was done about it already. */
  readonly done: readonly NodeJS.Signals[]
  readonly said: boolean
}
export const WELL: DatabaseWatch = { is: 'well', since: 0, done: [], said: false }

/** A recovery longer than this is said; it is not disturbed. */
const SAID_AFTER_MS = 10_000
/** A shutdown that takes longer than this is made a quick one, then a hard one. */
const HARD_AFTER_MS = 20_000
const KILLED_AFTER_MS = 40_000
/** This long without an answer of any kind is said: the machine may be busy, or the process stopped. */
const HANGS_AFTER_MS = 120_000

export type Next = {
  readonly watch: DatabaseWatch
  readonly signal?: NodeJS.Signals
  readonly say?: string
}

/** What is due now. `now`: ms of a clock that does not jump. */
export function nextAct(before: DatabaseWatch, is: Answering, now: number): Next {
  const watch = before.is === is ? before : { is, since: now, done: [], said: false }
  const took = now - watch.since
  if (is === 'well') return { watch }
  if (is === 'recovers') return took < SAID_AFTER_MS ? { watch } : sayOnce(watch, RECOVERS)
  if (is === 'away') return took < HANGS_AFTER_MS ? { watch } : sayOnce(watch, SILENT)
  if (took >= KILLED_AFTER_MS) return signalOnce(watch, 'SIGKILL', HARD)
  if (took >= HARD_AFTER_MS) return signalOnce(watch, 'SIGQUIT', HARD)
  return signalOnce(watch, 'SIGINT')
}

const RECOVERS = 'The database recovers, and is left to; people wait until it has.'
const SILENT = 'The database has not answered for two minutes. Look into its log.'
const HARD = 'The database did not end, and is ended the hard way; nothing that was kept is lost.'

const sayOnce = (watch: DatabaseWatch, say: string): Next =>
  watch.said ? { watch } : { watch: { ...watch, said: true }, say }

function signalOnce(watch: DatabaseWatch, signal: NodeJS.Signals, say?: string): Next {
  if (watch.done.includes(signal)) return { watch }
  const done = { ...watch, done: [...watch.done, signal] }
  return say === undefined || watch.said
    ? { watch: done, signal }
    : { watch: { ...done, said: true }, signal, say }
}
