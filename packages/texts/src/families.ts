/** A family's rules in words made from its data: how it starts, its floors, its lock, what hangs on what. */
import type { Family, Mode, PartRole } from '@plain-slate/core'
import type { Say } from './say.ts'

type Rule = Family['start'][number]
type Condition = Rule['when'][number]
const list = (words: readonly string[]): string => words.join(', ')
const nameOf = ({ modes }: Pick<Family, 'modes'>, mode: Mode): string =>
  modes.find(({ id }) => id === mode)?.name ?? mode

/** A start rule: what must hold, what it comes to, what the device says then. */
export function startWords(say: Say, family: Pick<Family, 'modes'>, rule: Rule): string {
  const when = list(rule.when.map((one) => conditionWords(say, one)))
  const end = endWords(say, family, rule)
  return rule.says === undefined
    ? say('family.start.rule', { when, end })
    : say('family.start.says', { when, end, says: rule.says })
}

/** A condition of a start rule. */
export function conditionWords(say: Say, one: Condition): string {
  if ('part' in one) {
    const is = say(`family.is.${one.is}`)
    if (one.part === 'any') return say('family.when.part.any', { is })
    const roles = list(one.part)
    return one.every === true
      ? say('family.when.part.every', { roles, is })
      : say('family.when.part', { roles, is })
  }
  if ('set' in one) return say(`family.set.${one.set}`)
  if ('lock' in one) return say(`family.lock.is.${one.lock}`)
  if ('data' in one) return say(`family.data.${one.data}`)
  return say(`family.merge.${one.merge}`)
}

function endWords(say: Say, family: Pick<Family, 'modes'>, { end }: Rule): string {
  switch (end.kind) {
    case 'dead':
    case 'loop':
    case 'asks-reset':
      return say(`family.end.${end.kind}`)
    case 'stays':
      return say('family.end.stays', { mode: nameOf(family, end.mode) })
    case 'falls-back':
      return say('family.end.falls-back', { n: end.after, mode: nameOf(family, end.mode) })
    case 'limit':
      return say('family.end.limit', { limit: say(`family.limit.${end.limit}`) })
    case 'warns':
      return say('family.end.warns', { n: end.seconds })
  }
}

const rolesWords = (say: Say, roles: readonly PartRole[] | 'any'): string =>
  roles === 'any' ? say('family.floor.any') : list(roles)

/** Floors, lock, permission, data keys, account, rows, marks, installs: a sentence each. */
export function rulesWords(say: Say, family: Family): readonly string[] {
  return [
    ...floorWords(say, family),
    ...lockWords(say, family),
    permissionWords(say, family),
    keysWords(say, family),
    say('family.wipe', { roles: list(family.wipe) }),
    say(family.account.asksAfterReset ? 'family.account' : 'family.account.not'),
    ...(family.account.lockTakes.length === 0
      ? []
      : [
          say('family.account.lock', {
            things: list(family.account.lockTakes.map((one) => say(`topic.survive.${one}`))),
          }),
        ]),
    family.adopts.length === 0
      ? say('family.adopts.none')
      : say('family.adopts', {
          how: list(family.adopts.map((one) => say(`family.adopts.${one}`))),
        }),
    ...family.drivers.map(({ name, modes, least, newest }) =>
      say('family.driver', {
        name,
        least,
        newest,
        modes: list(modes.map((mode) => nameOf(family, mode))),
      }),
    ),
    ...family.marks.map(({ says, setBy }) =>
      say('family.mark', { says, by: list(setBy.map((one) => say(`family.mark.${one}`))) }),
    ),
    ...family.installs.map(({ kinds, from, mode, ends, leastPercent }) =>
      say('family.install', {
        kinds: list(kinds.map((one) => say(`family.kind.${one}`))),
        store: family.stores.find(({ id }) => id === from)?.name ?? from,
        mode: nameOf(family, mode),
        ends,
        least: leastPercent,
      }),
    ),
    ...(family.goOn === undefined ? [] : [say('family.go-on', family.goOn)]),
    say('family.items', { items: list(family.items.map(({ name }) => name)) }),
  ]
}

const floorWords = (say: Say, { floors }: Family): readonly string[] => [
  say(`family.floors.${floors.kept}`),
  ...floors.rules.map(({ roles, refused, rises }) =>
    say('family.floor', {
      roles: rolesWords(say, roles),
      refused,
      rises: list(rises.map((one) => say(`family.rises.${one}`))),
    }),
  ),
]

function lockWords(say: Say, { lock }: Family): readonly string[] {
  if (lock.opens === 'maker-only') return [say('family.lock.maker')]
  const { greyedDays, neverOn, opening, closing, closesOver } = lock
  return [
    say('family.lock.opens', { days: greyedDays, what: say(`family.change.${opening}`) }),
    ...(neverOn.length === 0 ? [] : [say('family.lock.never', { never: list(neverOn) })]),
    ...closing.map(({ models, data }) =>
      say('family.lock.closes', {
        what: say(`family.change.${data}`),
        models: models === undefined ? say('family.models.others') : list(models),
      }),
    ),
    say('family.lock.over', { over: list(closesOver.map((one) => say(`family.over.${one}`))) }),
  ]
}

function permissionWords(say: Say, { permission: { what, steps, clearedBy } }: Family): string {
  const by = list(clearedBy.map((one) => say(`family.cleared.${one}`)))
  const cleared = clearedBy.length === 0 ? '' : say('family.permission.cleared', { by })
  return say('family.permission', { what, steps: list(steps), cleared }).trim()
}

const keysWords = (say: Say, { dataKeys: { hangOn } }: Family): string =>
  hangOn.length === 0
    ? say('family.keys.none')
    : say('family.keys', { keys: list(hangOn.map((one) => say(`family.key.${one}`))) })

/** What is written, in what order, what is never, what is kept once. */
export const partsWords = (say: Say, family: Family): readonly string[] => [
  say('family.order', { roles: list(family.writeOrder) }),
  family.restartAfter.length === 0
    ? say('family.restarts.none')
    : say('family.restarts', { roles: list(family.restartAfter) }),
  family.keptOnce.length === 0
    ? say('family.once.none')
    : say('family.once', { roles: list(family.keptOnce) }),
  say('family.never', { roles: list(family.never) }),
  say('family.set', { roles: list(family.signedSet) }),
]

/** A build id's parts from left to right, and how two are put in order. */
export function buildWords(say: Say, { build }: Family): readonly string[] {
  const parts = build.segments.map((one) =>
    one.kind === 'mark'
      ? say('family.build.mark', { text: one.text })
      : one.kind === 'word'
        ? say('family.build.word', { name: one.name, values: list(one.values) })
        : say('family.build.counter', { name: one.name, n: one.width, alphabet: one.alphabet }),
  )
  const notations = build.notations?.length ?? 0
  return [
    parts.join(' · '),
    say('family.build.order', { order: list(build.order) }),
    ...(build.alike.length === 0 ? [] : [say('family.build.alike', { alike: list(build.alike) })]),
    ...(notations === 0 ? [] : [say('family.build.notations', { n: notations })]),
  ]
}

/** A place where a fact is read. */
export function placeWords(
  say: Say,
  family: Pick<Family, 'modes'>,
  place: NonNullable<Family['facts']['model']>[number] & { readonly trust: number },
): string {
  const { source, where, modes, trust, seconds } = place
  const about = { source: say(`source.${source}`), where, trust, seconds }
  return modes === 'any'
    ? say('family.place', about)
    : say('family.place.in', { ...about, modes: list(modes.map((mode) => nameOf(family, mode))) })
}

/** What a mode takes over the link. */
export function takesWords(say: Say, { takes }: Family['modes'][number]): string {
  const words = Object.entries(takes).map(([what, roles]) => {
    const named = say(`takes.${what as keyof typeof takes}`)
    return roles === 'any' ? named : say('family.takes.roles', { what: named, roles: list(roles) })
  })
  return words.length === 0 ? say('family.takes.none') : words.join('; ')
}
