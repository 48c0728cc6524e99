/** What can be done from the find box: go to a place, open a slip, change the light, leave. */
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { THEMES, useBrowserStore } from '../base/browser.ts'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import type { Command } from './findings.ts'
import { PLACES } from './places.ts'

/** The commands of this page, in the language of the browser. */
export function useCommands() {
  const say = useSay()
  const router = useRouter()
  const browser = useBrowserStore()
  const session = useSessionStore()
  const go = (path: string) => () => void router.push(path)

  return computed<Command[]>(() => [
    { id: 'new', title: say('keys.new'), act: go('/slips/new') },
    ...PLACES.map(({ name, label, path }) => ({
      id: name,
      title: say('command.go', { place: say(label) }),
      act: go(path),
    })),
    { id: 'house', title: say('command.go', { place: say('place.house') }), act: go('/house') },
    ...THEMES.map((theme) => ({
      id: `theme-${theme}`,
      title: say('command.theme', { theme: say(`theme.${theme}`) }),
      act: () => (browser.theme = theme),
    })),
    { id: 'hand-over', title: say('frame.hand-over'), act: go('/sign-in') },
    {
      id: 'sign-off',
      title: say('frame.sign-off'),
      act: () => void session.end(),
    },
  ])
}
