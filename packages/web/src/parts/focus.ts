/** `v-focus`: puts the cursor into a field at once when it appears, before anybody can type. */
import type { Directive } from 'vue'

export const vFocus: Directive<HTMLElement, boolean | undefined> = {
  mounted(element, { value }) {
    if (value === false) return
    const field = element.matches('input, textarea')
      ? element
      : element.querySelector<HTMLElement>('input, textarea')
    field?.focus()
  },
}
