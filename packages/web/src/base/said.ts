/** Speaking to the person at this browser: the catalogue's speaker in the chosen language. */
import type { Say } from '@plain-slate/texts'
import { speaker } from '@plain-slate/texts'
import { useBrowserStore } from './browser.ts'

/** A speaker that follows the browser's language; call it in templates and computed values. */
export function useSay(): Say {
  const browser = useBrowserStore()
  return (code, ...params) => speaker(browser.language)(code, ...params)
}
