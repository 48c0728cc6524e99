/**
 * Whether the parts of a profile refer to each other as they must: modes, partitions, models, keys and lines of menus
 * that are named are there, and what excludes each other is not both. Reads a profile; gives each place that is wrong.
 */
import type { Profile } from './schema.ts'

export type BrokenRef = { readonly path: readonly (string | number)[]; readonly message: string }

export const brokenRefs = (family: Profile): readonly BrokenRef[] => [
  ...kindsOnce(family),
  ...modesNamed(family),
  ...rolesTaken(family),
  ...modelsNamed(family),
  ...partsNamed(family),
  ...installsSound(family),
  ...handsSound(family),
  ...driversSound(family),
]

const broken = (path: BrokenRef['path'], message: string): readonly BrokenRef[] => [
  { path, message },
]

/** Kinds of mode of which a family has one and no more. */
const ONE_EACH = ['off', 'system'] as const
const kindsOnce = ({ modes }: Profile): readonly BrokenRef[] =>
  ONE_EACH.flatMap((kind) =>
    modes.filter((mode) => mode.kind === kind).length === 1
      ? []
      : broken(['modes'], `one mode of the kind ${kind}, no more and no fewer`),
  )

function modesNamed(family: Profile): readonly BrokenRef[] {
  const ids = family.modes.map(({ id }) => id)
  const known = (path: BrokenRef['path'], ...modes: readonly string[]) =>
    modes.flatMap((mode) => (ids.includes(mode) ? [] : broken(path, `no mode ${mode}`)))
  const each = (modes: readonly string[] | 'any') => (modes === 'any' ? [] : modes)
  return [
    ...family.ways.flatMap(({ from, to, slip }, index) => [
      ...known(['ways', index, 'to'], to),
      ...known(['ways', index, 'from'], ...each(from)),
      ...known(['ways', index, 'slip', 'leads'], ...(slip === undefined ? [] : [slip.leads])),
    ]),
    ...Object.entries(family.facts).flatMap(([fact, places]) =>
      places.flatMap(({ modes }, index) => known(['facts', fact, index, 'modes'], ...each(modes))),
    ),
    ...family.start.flatMap(({ end }, index) =>
      'mode' in end ? known(['start', index, 'end', 'mode'], end.mode) : [],
    ),
    ...family.stores.flatMap(({ modes }, index) => known(['stores', index, 'modes'], ...modes)),
    ...family.drivers.flatMap(({ modes }, index) => known(['drivers', index, 'modes'], ...modes)),
    ...family.installs.flatMap(({ mode }, index) => known(['installs', index, 'mode'], mode)),
    ...family.modes.flatMap(({ confusedWith }, index) =>
      known(['modes', index, 'confusedWith'], ...confusedWith.map(({ mode }) => mode)),
    ),
  ]
}

function rolesTaken({ modes, never, lock }: Profile): readonly BrokenRef[] {
  /* What is the device's own, or the customer's, is copied out of no device. */
  const read = modes.flatMap(({ takes }, index) =>
    takes.read === 'any' || takes.read?.some((role) => never.includes(role)) === true
      ? broken(
          ['modes', index, 'takes', 'read'],
          'roles that are read back, none of them untouched',
        )
      : [],
  )
  const turns = modes.findIndex(({ takes }) => takes.lock !== undefined)
  const turned = turns >= 0 && lock.opens !== 'command'
  return [
    ...read,
    ...(turned
      ? broken(['modes', turns, 'takes', 'lock'], 'a lock that only the maker turns')
      : []),
  ]
}

/** A mode has one driver at the most, and the newest of it is of use. */
const driversSound = ({ drivers }: Profile): readonly BrokenRef[] =>
  drivers.flatMap(({ modes, least, newest }, index) => {
    const others = drivers.slice(0, index).flatMap((one) => one.modes)
    return [
      ...(modes.some((mode) => others.includes(mode))
        ? broken(['drivers', index, 'modes'], 'modes of no other driver')
        : []),
      ...(least > newest ? broken(['drivers', index, 'least'], 'no more than the newest') : []),
    ]
  })

function modelsNamed({ models, variants }: Profile): readonly BrokenRef[] {
  const codes = models.map(({ code }) => code)
  return variants.flatMap((row, index) =>
    (row.models ?? []).flatMap((one) =>
      codes.includes(one) ? [] : broken(['variants', index, 'models'], `no model ${one}`),
    ),
  )
}

function partsNamed(family: Profile): readonly BrokenRef[] {
  const parts = family.partitions.map(({ name }) => name)
  const part = (path: BrokenRef['path'], ...names: readonly string[]) =>
    names.flatMap((name) => (parts.includes(name) ? [] : broken(path, `no partition ${name}`)))
  return [
    ...family.layouts.flatMap(({ order, mib, without }, index) => [
      ...part(['layouts', index], ...(order ?? []), ...Object.keys(mib ?? {}), ...(without ?? [])),
      ...(order !== undefined && new Set(order).size !== parts.length
        ? broken(['layouts', index, 'order'], 'every partition once')
        : []),
    ]),
    ...family.stores.flatMap(({ partition }, index) =>
      part(['stores', index], ...(partition === undefined ? [] : [partition])),
    ),
    ...family.items.flatMap(({ partition }, index) =>
      part(['items', index, 'partition'], partition),
    ),
  ]
}

function installsSound(family: Profile): readonly BrokenRef[] {
  return family.installs.flatMap(({ from, mode, kinds, slowly, hands }, index) => {
    const path = ['installs', index]
    const at = family.modes.find(({ id }) => id === mode)
    const takes = at?.takes.install !== undefined
    const lines = at?.menu?.lines.map(({ id }) => id) ?? []
    const paced = [from === 'push' ? 'push' : 'copy', 'check', 'install'] as const
    return [
      ...(family.stores.some(({ id }) => id === from) ? [] : broken(path, `no store ${from}`)),
      ...(slowly.some((kind) => !kinds.includes(kind))
        ? broken(path, 'a kind that it does not take')
        : []),
      ...(takes === (hands !== undefined)
        ? broken(path, 'started by hands, or taken over the link by its mode')
        : []),
      ...(hands !== undefined && !lines.includes(hands.line)
        ? broken([...path, 'hands', 'line'], `no line ${hands.line} in the menu of ${mode}`)
        : []),
      ...paced.flatMap((key) =>
        family.pace[key] === undefined ? broken(['pace'], `no pace of ${key}`) : [],
      ),
    ]
  })
}

/** Keys that hands are told to hold are on the outline; lines that ways take are in the menu where they begin. */
function handsSound({ outline, modes, ways }: Profile): readonly BrokenRef[] {
  const ids = outline.keys.map(({ id }) => id)
  const keys = (path: BrokenRef['path'], ...named: readonly string[]) =>
    named.flatMap((one) => (ids.includes(one) ? [] : broken(path, `no key ${one}`)))
  const linesIn = (mode: string) =>
    modes.find(({ id }) => id === mode)?.menu?.lines.map(({ id }) => id) ?? []
  return [
    ...ways.flatMap(({ from, acts, line }, index) => [
      ...(acts ?? []).flatMap((act, at) =>
        keys(['ways', index, 'acts', at, 'keys'], ...(act.keys ?? [])),
      ),
      ...(line === undefined
        ? []
        : (from === 'any' ? modes.map(({ id }) => id) : from).flatMap((mode) =>
            linesIn(mode).includes(line)
              ? []
              : broken(['ways', index, 'line'], `no line ${line} in the menu of ${mode}`),
          )),
    ]),
    ...modes.flatMap(({ menu }, index) => {
      if (menu === undefined) return []
      const lines = menu.lines.map(({ id }) => id)
      const orders = menu.orders.flatMap((order, at) =>
        new Set(order.lines).size === lines.length &&
        order.lines.every((one) => lines.includes(one))
          ? []
          : broken(['modes', index, 'menu', 'orders', at, 'lines'], 'every line once'),
      )
      return [...keys(['modes', index, 'menu'], menu.key, menu.takes), ...orders]
    }),
  ]
}
