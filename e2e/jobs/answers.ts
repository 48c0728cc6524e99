/** What is answered alike of everything that may be on a phone. */
import { THINGS } from '@plain-slate/core'

export const everything = (answer: 'must' | 'may-go' | 'not-there') =>
  Object.fromEntries(
    ['photos', 'apps', 'messages', 'settings', ...THINGS].map((one) => [`survive.${one}`, answer]),
  )
