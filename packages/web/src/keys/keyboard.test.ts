// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { QUIET_MS, listenToKeys } from './keyboard.ts'

let ending: AbortController
let happened: string[]
let enabled: boolean

beforeEach(() => {
  vi.useFakeTimers()
  happened = []
  enabled = true
  ending = new AbortController()
  document.body.innerHTML = `<input id="field" value="before"><button id="button">b</button>
    <div role="listbox" tabindex="0" id="list"></div>`
  listenToKeys(
    {
      shortcut: (key) => () => happened.push(`key ${key}`),
      mainAction: () => () => happened.push('main'),
      scanned: (text) => happened.push(`scan ${text}`),
      enabled: () => enabled,
    },
    ending.signal,
  )
})
afterEach(() => {
  ending.abort()
  vi.useRealTimers()
})

const at = (id: string) => document.getElementById(id) as HTMLInputElement
let clock = 1000
function send(
  kind: 'keydown' | 'keyup',
  key: string,
  target: Element,
  more: KeyboardEventInit = {},
) {
  const event = new KeyboardEvent(kind, { key, bubbles: true, cancelable: true, ...more })
  Object.defineProperty(event, 'timeStamp', { value: clock })
  target.dispatchEvent(event)
  return event
}
/** One press and release, the clock going on by `gap` before it. */
function press(key: string, target: Element = document.body, gap = 200, more = {}) {
  clock += gap
  const event = send('keydown', key, target, more)
  if (target instanceof HTMLInputElement && key.length === 1) target.value += key
  send('keyup', key, target, more)
  return event
}
const quiet = () => vi.advanceTimersByTime(QUIET_MS)

describe('a one-key shortcut', () => {
  it('acts on release, after a moment of quiet', () => {
    press('b')
    expect(happened).toEqual([])
    quiet()
    expect(happened).toEqual(['key b'])
  })

  it('does not act while somebody types or chooses, with a modifier, or switched off', () => {
    press('b', at('field'))
    press('b', at('list'))
    press('b', document.body, 200, { ctrlKey: true })
    enabled = false
    press('b')
    quiet()
    expect(happened).toEqual([])
  })

  it('does not act when its key went down somewhere else', () => {
    send('keydown', 'b', at('field'))
    send('keyup', 'c', document.body)
    quiet()
    expect(happened).toEqual([])
  })
})

describe('a scan', () => {
  const scan = (target: Element) => [...'0417', 'Enter'].map((key) => press(key, target, 5))

  it('is taken out of the field it landed in, whose framework is told', () => {
    const heard = vi.fn()
    at('field').addEventListener('input', heard)
    const events = scan(at('field'))
    quiet()
    expect(happened).toEqual(['scan 0417'])
    expect(at('field').value).toBe('before')
    expect(heard).toHaveBeenCalledOnce()
    expect(events.at(-1)?.defaultPrevented).toBe(true)
  })

  it('starts no shortcut and no main action on its way', () => {
    scan(document.body)
    quiet()
    expect(happened).toEqual(['scan 0417'])
  })
})

describe('Enter', () => {
  it('starts the sheet’s main action, but not from a button or a field', () => {
    press('Enter')
    press('Enter', at('button'))
    press('Enter', at('field'))
    expect(happened).toEqual(['main'])
  })
})
