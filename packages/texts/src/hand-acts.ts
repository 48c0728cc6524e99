/** What hands do, in words: one act of a chord, with its cue and its time. */
import type { HandAct } from '@plain-slate/core'
import type { Say } from './say.ts'

/** An act as pages have it: keys by their names, what is not given null. */
export type ActTold = {
  readonly do: HandAct['do']
  readonly keys: readonly { readonly name: string }[]
  readonly seconds: readonly [number, number] | null
  readonly until: string | null
  readonly within: number | null
  readonly say: string | null
}

export function handActWords(say: Say, act: ActTold): string {
  const keys = act.keys.map(({ name }) => name).join(', ')
  const time =
    act.seconds === null ? '' : say('way.seconds', { low: act.seconds[0], high: act.seconds[1] })
  const about = {
    what: doWords(say, act, keys),
    until: act.until === null ? '' : say('way.until', { until: act.until }),
    time,
    within: act.within === null ? '' : say('way.within', { n: act.within }),
  }
  return [about.what, about.until, about.time, about.within]
    .filter((part) => part !== '')
    .join(', ')
}

function doWords(say: Say, { do: what, say: own }: ActTold, keys: string): string {
  switch (what) {
    case 'press':
      return say('way.do.press', { keys, say: own ?? '' }).trim()
    case 'enter':
      return keys === '' ? (own ?? '') : say('way.do.enter', { keys, say: own ?? '' })
    case 'hold':
    case 'let-go':
      return say(`way.do.${what}`, { keys })
    case 'wait':
    case 'cable-in':
    case 'cable-out':
    case 'cell-in':
    case 'cell-out':
      return say(`way.do.${what}`)
  }
}
