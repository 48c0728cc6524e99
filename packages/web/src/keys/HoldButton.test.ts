// @vitest-environment jsdom
import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import HoldButton from './HoldButton.vue'
import { HOLD_MS } from './hold.ts'

beforeEach(() => {
  vi.useFakeTimers({
    toFake: ['requestAnimationFrame', 'cancelAnimationFrame', 'performance', 'Date'],
  })
})
afterEach(() => vi.useRealTimers())

const button = (props = {}) =>
  mount(HoldButton, { props: { label: 'Erase', ...props }, global: { plugins: [createPinia()] } })
const frames = (ms: number) => vi.advanceTimersByTime(ms)

describe('a held button', () => {
  it('acts once when it was held long enough', async () => {
    const held = button()
    await held.trigger('keydown.space')
    frames(HOLD_MS + 100)
    frames(HOLD_MS + 100)
    expect(held.emitted('held')).toHaveLength(1)
  })

  it('does nothing when it is let go before, or merely pressed', async () => {
    const held = button()
    await held.trigger('keydown.space')
    frames(HOLD_MS - 200)
    await held.trigger('keyup.space')
    frames(HOLD_MS)
    await held.trigger('click')
    await held.trigger('keydown.enter')
    frames(HOLD_MS + 100)
    expect(held.emitted('held')).toBeUndefined()
  })

  it('lets go when the focus or the pointer leaves', async () => {
    const held = button()
    held.element.dispatchEvent(new MouseEvent('pointerdown', { button: 0 }))
    frames(HOLD_MS / 2)
    await held.trigger('pointerleave')
    frames(HOLD_MS)
    expect(held.emitted('held')).toBeUndefined()
  })

  it('that may not be pressed cannot be held', async () => {
    const held = button({ disabled: true })
    await held.trigger('keydown.space')
    frames(HOLD_MS + 100)
    expect(held.emitted('held')).toBeUndefined()
  })
})
