/** A leg's acts in words, and which keys are down and where the cable is after so many of them. */
import type { HandActShown } from '@plain-slate/api'
import type { Say } from '@plain-slate/texts'

export function actWords(say: Say, act: HandActShown): string {
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

function doWords(say: Say, { do: what, say: own }: HandActShown, keys: string): string {
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

export type Held = { readonly keys: readonly string[]; readonly cable: boolean }

/** What is down and in once the act at this place is under way; before the first everything is let go. */
export function heldAt(acts: readonly HandActShown[], at: number): Held {
  return acts.slice(0, at + 1).reduce<Held>(
    ({ keys, cable }, act, index) => {
      const own = act.keys.map(({ id }) => id)
      switch (act.do) {
        case 'hold':
          return { keys: [...keys, ...own], cable }
        case 'press':
        case 'enter':
          /* Down for as long as it is done. */
          return { keys: index === at ? [...keys, ...own] : keys, cable }
        case 'let-go':
          return { keys: keys.filter((one) => !own.includes(one)), cable }
        case 'cable-in':
        case 'cable-out':
          return { keys, cable: act.do === 'cable-in' }
        case 'cell-in':
        case 'cell-out':
        case 'wait':
          return { keys, cable }
      }
    },
    { keys: [], cable: false },
  )
}

/** The band of an act's ring: when its cue is to come, or the window in which it must be done; none: it has no time. */
export const bandOf = ({ seconds, within }: HandActShown): readonly [number, number] | undefined =>
  seconds ?? (within === null ? undefined : [0, within])
