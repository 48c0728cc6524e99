/** What this browser remembers by itself: theme, language, whether one-key shortcuts act. */
import type { Language } from '@plain-slate/texts'
import { LANGUAGES } from '@plain-slate/texts'
import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'

export const THEMES = ['system', 'light', 'dark'] as const
export type ThemeChoice = (typeof THEMES)[number]

export const useBrowserStore = defineStore('browser', () => {
  const theme = useLocalStorage<ThemeChoice>('plain-slate-theme', 'system')
  const shortcuts = useLocalStorage('plain-slate-shortcuts', true)
  const storedLanguage = useLocalStorage<string>('plain-slate-language', 'en-GB')
  const language = computed<Language>(
    () => LANGUAGES.find((known) => known === storedLanguage.value) ?? 'en-GB',
  )
  return { theme, shortcuts, language }
})
