/** Acts that strangers did and that broke laws once, as fixed walks: each is done again before any that a seed chooses. */
import { LEAVES } from '../bench/lines.ts'
import type { Act } from './act.ts'
import { ALL, linesIn } from './choose.ts'

const who = 'Tavi'
const say = (topic: string, answer: string): Act => ({ do: 'say', who, lines: [{ topic, answer }] })
const state = (to: string, reason = ''): Act => ({ do: 'state', who, state: to, reason })

const TO_READY: readonly Act[] = [
  { do: 'open', who },
  { do: 'say', who, lines: linesIn(ALL) },
  { do: 'hands', act: 'plug' },
  { do: 'read', who, deep: false },
  { do: 'say', who, lines: linesIn(LEAVES) },
  { do: 'pick', who },
  { do: 'take', who },
  { do: 'sign', who },
]

/** Stopped, wet and closed while its run waits for the cable; the cable comes back. */
const HELD: readonly Act[] = [
  ...TO_READY,
  { do: 'start', who },
  { do: 'hands', act: 'unplug' },
  say('condition.wet', 'wet'),
  state('stopped', 'its owner wants it so'),
  state('closed'),
  { do: 'hands', act: 'plug' },
  { do: 'wait', ms: 600 },
  { do: 'run', who, word: 'take-up' },
  say('condition.wet', 'dry'),
  { do: 'run', who, word: 'take-up' },
]

/** Taken back and given again; started by one who may not, over what nobody said, over what ended. */
const ENDED: readonly Act[] = [
  ...TO_READY,
  say('ready.cable', 'taken-back'),
  { do: 'start', who },
  { do: 'sign', who },
  say('consent.no-guarantee', 'no'),
  say('consent.no-guarantee', 'yes'),
  { do: 'start', who },
  { do: 'sign', who },
  { do: 'start', who: 'Juno' },
  state('waiting', 'for its owner'),
  { do: 'start', who },
  state('open'),
  state('closed'),
]

export const ROADS: readonly (readonly Act[])[] = [HELD, ENDED]
