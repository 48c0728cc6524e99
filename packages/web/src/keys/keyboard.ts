/**
 * The keyboard of the whole page. A scan is taken back out of the field it landed in and handed to the
 * find box; a one-key shortcut acts when its key is let go and 60 ms of quiet follow, never while
 * somebody types. Reads DOM events, the shortcut table and a clock; the scan rule is `scan.ts`.
 */
import type { Burst } from './scan.ts'
import { NO_BURST, press } from './scan.ts'

export const QUIET_MS = 60

export type Keyboard = {
  /** What a key does here and now; undefined: nothing. */
  readonly shortcut: (key: string) => (() => void) | undefined
  /** The one main action of the sheet, if there is one. */
  readonly mainAction: () => (() => void) | undefined
  readonly scanned: (text: string) => void
  readonly enabled: () => boolean
}

type Field = HTMLInputElement | HTMLTextAreaElement
type Snapshot = { readonly field: Field; readonly value: string }

/** Listens until the signal ends it. */
export function listenToKeys(keyboard: Keyboard, signal: AbortSignal): void {
  let burst: Burst = NO_BURST
  let before: Snapshot | undefined
  let waiting: ReturnType<typeof setTimeout> | undefined
  let down: string | undefined

  const onDown = (event: KeyboardEvent) => {
    clearTimeout(waiting)
    const pressed = press(burst, { key: event.key, at: event.timeStamp, repeat: event.repeat })
    if (pressed.kind === 'scan') {
      swallow(event)
      takeBack(before)
      burst = NO_BURST
      down = undefined
      keyboard.scanned(pressed.text)
      return
    }
    if (pressed.begins) before = snapshotOf(event.target)
    burst = pressed.burst
    if (event.repeat) return
    down = isPlain(event) ? event.key : undefined
    if (event.key === 'Enter' && isPlain(event) && !isBusy(event.target)) act(keyboard.mainAction())
  }
  const onUp = (event: KeyboardEvent) => {
    const mine = event.key === down && isPlain(event) && !isTyping(event.target)
    down = undefined
    if (!mine || !keyboard.enabled()) return
    const key = event.key.toLowerCase()
    clearTimeout(waiting)
    waiting = setTimeout(() => act(keyboard.shortcut(key)), QUIET_MS)
  }
  window.addEventListener('keydown', onDown, { capture: true, signal })
  window.addEventListener('keyup', onUp, { capture: true, signal })
  signal.addEventListener('abort', () => clearTimeout(waiting))
}

const act = (what: (() => void) | undefined): void => what?.()

function swallow(event: Event): void {
  event.preventDefault()
  event.stopImmediatePropagation()
}

/** No modifier but Shift, which some keys need (`?`, `/` on many layouts). */
function isPlain(event: KeyboardEvent): boolean {
  return !event.ctrlKey && !event.altKey && !event.metaKey && !event.isComposing
}

/** Kinds of input in which letters are text. */
const TEXT_TYPES =
  /^(text|search|password|email|url|tel|number|date|datetime-local|time|month|week)$/

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target instanceof HTMLInputElement) return TEXT_TYPES.test(target.type)
  const choosing = target.closest('[role="listbox"], [role="menu"], [role="combobox"], select')
  return target instanceof HTMLTextAreaElement || target.isContentEditable || choosing !== null
}

/** Where Enter already means something: fields, buttons, links, dialogs. */
function isBusy(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  return isTyping(target) || target.closest('button, a[href], [role="dialog"], summary') !== null
}

function snapshotOf(target: EventTarget | null): Snapshot | undefined {
  if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)
    return { field: target, value: target.value }
  return undefined
}

/** Puts a field's text back and says so, since frameworks listen for `input`. */
function takeBack(before: Snapshot | undefined): void {
  if (before === undefined || before.field.value === before.value) return
  before.field.value = before.value
  before.field.dispatchEvent(new Event('input', { bubbles: true }))
}
