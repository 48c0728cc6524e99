/** Which keys are down and where the cable is after so many of a leg's acts, and the ring of each. */
import type { HandActShown } from '@plain-slate/api'

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
