/**
 * Meeting whatever hangs on a port: opens the stream, says hello, tells who it is, again and again until
 * the device that is waited for answers in the mode that is waited for.
 */
import { setTimeout } from 'node:timers/promises'
import type { DeviceFacts, Mode } from '@plain-slate/core'
import type { Address } from './address.ts'
import { openStream } from './address.ts'
import type { Hears, Lease, Link } from './link.ts'
import { LinkLost, hello, openLink } from './link.ts'

/** Between two tries: soon at first, since most losses are short, then at a steady beat. */
const AGAIN_MS = [20, 40, 80, 160, 250] as const

export type Met =
  | { readonly kind: 'met'; readonly link: Link; readonly facts: DeviceFacts; readonly at: number }
  | { readonly kind: 'superseded' }
  /** Something answers, and what it says cannot be used: why, in a few words. */
  | { readonly kind: 'odd'; readonly why: string }

/** What was seen while waiting: the facts of a device in another mode, or nobody. */
export type Seen = (facts: DeviceFacts | undefined) => void

/** One try: undefined when nobody answers, or the signal ended it. */
export async function meet(
  address: Address,
  lease: Lease,
  secret: string,
  signal?: AbortSignal,
  hears?: Hears,
): Promise<Met | undefined> {
  const stream = await openStream(address)
  if (stream === undefined) return undefined
  const link = openLink(stream, hears)
  const leave = () => link.close()
  if (signal?.aborted === true) leave()
  signal?.addEventListener('abort', leave, { once: true })
  try {
    const answer = await hello(link, lease, secret)
    if (answer.answer === 'facts') return { kind: 'met', link, facts: answer.facts, at: answer.at }
    link.close()
    const older = answer.answer === 'refused' && answer.code === 'old-epoch'
    return older ? { kind: 'superseded' } : undefined
  } catch (error) {
    if (!(error instanceof LinkLost)) throw error
    return error.odd === undefined ? undefined : { kind: 'odd', why: error.odd }
  } finally {
    signal?.removeEventListener('abort', leave)
  }
}

export type Awaited = {
  readonly serial: string
  readonly mode: Mode | undefined
  /** Modes in which it is as welcome. */
  readonly or?: readonly Mode[]
  /** Hears what it says by itself, from the meeting on. */
  readonly hears?: Hears
}

/**
 * Waits for the device. Another one that hangs there, and another mode, are told and waited out: nothing is said to them but
 * hello. Undefined when the signal ended the waiting.
 */
export async function waitFor(
  address: Address,
  lease: Lease,
  secret: string,
  wanted: Awaited,
  seen: Seen,
  signal: AbortSignal,
): Promise<Exclude<Met, { kind: 'odd' }> | undefined> {
  for (let tries = 0; !signal.aborted; tries += 1) {
    const met = await meet(address, lease, secret, signal, wanted.hears)
    if (met?.kind === 'superseded') return met
    if (met?.kind === 'met') {
      const { mode, or = [] } = wanted
      const there = mode === undefined || [mode, ...or].includes(met.facts.mode)
      if (met.facts.serial === wanted.serial && there) return met
      met.link.close()
    }
    seen(met?.kind === 'met' ? met.facts : undefined)
    await pause(AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)] ?? 250, signal)
  }
  return undefined
}

/** Waits so long, or until the signal ends the waiting: that is no error here. */
export const pause = (ms: number, signal: AbortSignal): Promise<void> =>
  setTimeout(ms, undefined, { signal }).catch(() => undefined)
