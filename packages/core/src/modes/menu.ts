/**
 * What a menu asks of hands: how many presses lead to a line, and which dangerous line lies beside it. Reads a menu and
 * the loader's version; where nobody knows that and the lines stand in another order under an older one, both are said.
 */
import type { Menu } from '../family/hands.ts'

export type MenuLine = Menu['lines'][number]
export type Presses = {
  /** Up to which loader it is so; undefined: under every newer one. */
  readonly upToLoader: number | undefined
  readonly lines: readonly MenuLine[]
  readonly presses: number
  /** Lines that erase and lie one press beside it. */
  readonly dangers: readonly MenuLine[]
}

/** How to come to a line, for each order that the menu may be in; empty: it has no such line. */
export function pressesTo(
  menu: Menu,
  line: string,
  loader: number | undefined,
): readonly Presses[] {
  return ordersFor(menu, loader).flatMap(({ upToLoader, lines }): readonly Presses[] => {
    const at = lines.findIndex(({ id }) => id === line)
    if (at < 0) return []
    const beside = [lines[at - 1], lines[at + 1]].flatMap((one) => one ?? [])
    return [{ upToLoader, lines, presses: at, dangers: beside.filter(({ danger }) => danger) }]
  })
}

type Order = Pick<Presses, 'upToLoader' | 'lines'>

function ordersFor({ lines, orders }: Menu, loader: number | undefined): readonly Order[] {
  const older = [...orders]
    .sort((a, b) => a.upToLoader - b.upToLoader)
    .map((one): Order => ({
      upToLoader: one.upToLoader,
      lines: one.lines.flatMap((id) => lines.find((line) => line.id === id) ?? []),
    }))
  const all = [...older, { upToLoader: undefined, lines }]
  if (loader === undefined) return all
  return all.filter(({ upToLoader }) => loader <= (upToLoader ?? Infinity)).slice(0, 1)
}

/** The menu's own sentence for a line; of several orders each, with the loader it is for. Empty: no such line. */
export function menuSentence(menu: Menu, line: string, loader: number | undefined): string {
  return pressesTo(menu, line, loader)
    .map((one, _, all) => {
      const name = one.lines[one.presses]?.name ?? line
      const times = menu.presses[Math.min(one.presses, menu.presses.length - 1)] ?? ''
      const said = menu.say.replace('{presses}', times).replace('{line}', name)
      return all.length === 1 ? said : `${loaderWords(one.upToLoader, all)}: ${said}`
    })
    .join(' ')
}

const loaderWords = (upTo: number | undefined, all: readonly Presses[]): string => {
  const highest = Math.max(...all.flatMap(({ upToLoader }) => upToLoader ?? []))
  return upTo === undefined ? `Loader ${highest + 1} and newer` : `Loader ${upTo} and older`
}
