/**
 * The words of a slip: why the device came in (intent), the ten stages in the order of the work,
 * and the state of the job as a whole.
 */
export const INTENTS = [
  'restore',
  'update',
  'downgrade',
  'variant-change',
  'preview',
  'leave-channel',
  'relock',
  'service',
] as const
export type Intent = (typeof INTENTS)[number]

export const STAGES = [
  'intake',
  'readings',
  'firmware',
  'proof',
  'compare',
  'plan',
  'ready',
  'write',
  'first-start',
  'hand-back',
] as const
export type Stage = (typeof STAGES)[number]

/** `waiting` is for somebody else (owner, maker); `stopped` and `declined` end without the work done. */
export const SLIP_STATES = ['open', 'waiting', 'stopped', 'declined', 'closed'] as const
export type SlipState = (typeof SLIP_STATES)[number]

/** Whether nothing more is said or written on a slip until it is opened again. */
export const isOver = (state: string | undefined): state is 'stopped' | 'declined' | 'closed' =>
  state === 'stopped' || state === 'declined' || state === 'closed'

/** Which states a slip may go to from each. An ended slip can be opened again; nothing else is lost. */
const NEXT_STATES: Readonly<Record<SlipState, readonly SlipState[]>> = {
  open: ['waiting', 'stopped', 'declined', 'closed'],
  waiting: ['open', 'stopped', 'declined', 'closed'],
  stopped: ['open'],
  declined: ['open'],
  closed: ['open'],
}

/** The states that a slip in `from` may go to, in the order they are offered. */
export function nextStates(from: SlipState): readonly SlipState[] {
  return NEXT_STATES[from]
}
