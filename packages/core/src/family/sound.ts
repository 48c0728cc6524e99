/**
 * Whether a profile can be true of any device: names that stand once, slots in pairs, sets that name parts, sizes for every
 * storage that fit into it, a mode that writes and a way to it. Each of these was taken in without a word once, and a device
 * of it written wrongly. Reads a profile whose parts refer to each other; gives each place that is wrong, and what to write.
 */
import type { BrokenRef } from './refs.ts'
import { mibIn, partitionsOf } from './layout.ts'
import { OWN_ROLES } from './never.ts'
import type { Profile } from './schema.ts'
import type { Family } from './profile.ts'

type Wrong = readonly BrokenRef[]
const wrong = (path: BrokenRef['path'], message: string): Wrong => [{ path, message }]

export const unsoundIn = (family: Profile): Wrong => [
  ...namesOnce(family),
  ...partitionsSound(family),
  ...rolesThere(family),
  ...sizesSound(family as unknown as Family),
  ...writingReached(family),
  ...grammarSound(family),
  ...permitsNamed(family),
]

/** What is named by one name is one thing. */
function namesOnce(family: Profile): Wrong {
  const lists: readonly (readonly [path: string, field: string, names: readonly string[]])[] = [
    ['partitions', 'name', family.partitions.map(({ name }) => name)],
    ['modes', 'id', family.modes.map(({ id }) => id)],
    ['models', 'code', family.models.map(({ code }) => code)],
    ['stores', 'id', family.stores.map(({ id }) => id)],
    ['drivers', 'id', family.drivers.map(({ id }) => id)],
    ['items', 'id', family.items.map(({ id }) => id)],
    ['outline.keys', 'id', family.outline.keys.map(({ id }) => id)],
    [
      'variants',
      'region',
      family.variants.map(
        ({ region, carrier, models }) =>
          `${region}/${carrier}${models === undefined ? '' : ` of ${models.join(', ')}`}`,
      ),
    ],
  ]
  return lists.flatMap(([path, field, names]) =>
    names.flatMap((name, at) =>
      names.indexOf(name) === at
        ? []
        : wrong([...path.split('.'), at, field], `${name} is named twice: each name once`),
    ),
  )
}

/** A partition table holds 36 sixteen-bit units of a name (UEFI, GPT partition entry). */
const NAME_UNITS = 36
/** More than one of these, and what is left of the storage has no owner. */
const RESTS = 1

function partitionsSound({ partitions }: Profile): Wrong {
  const rests = partitions.flatMap(({ mib }, at) => (mib === 'rest' ? [at] : []))
  return [
    ...partitions.flatMap(({ name, role, slot }, at) => [
      ...(name.length > NAME_UNITS
        ? wrong(
            ['partitions', at, 'name'],
            `no more than ${NAME_UNITS} characters: no table holds more`,
          )
        : []),
      ...(slot !== undefined &&
      !partitions.some((one) => one.role === role && one.slot !== undefined && one.slot !== slot)
        ? wrong(
            ['partitions', at, 'slot'],
            `a slot without its twin: name the ${role} of the other slot too`,
          )
        : []),
    ]),
    ...(rests.length > RESTS
      ? wrong(
          ['partitions', rests[1] ?? 0, 'mib'],
          'a second rest: one partition takes what is left, the others have a size',
        )
      : []),
  ]
}

/** Lists of what is written or erased. */
const WRITES: readonly string[] = ['writeOrder', 'restartAfter', 'signedSet', 'wipe']

/** Orders and sets name roles of which there is a partition. */
function rolesThere(family: Profile): Wrong {
  const roles = new Set<string>([...family.partitions.map(({ role }) => role), 'table'])
  const lists = {
    writeOrder: family.writeOrder,
    restartAfter: family.restartAfter,
    never: family.never,
    signedSet: family.signedSet,
    wipe: family.wipe,
    keptOnce: family.keptOnce,
  }
  return Object.entries(lists).flatMap(([name, listed]) =>
    listed.flatMap((role, at) => [
      ...(WRITES.includes(name) && OWN_ROLES.includes(role)
        ? wrong([name, at], `${role} is the device’s own: it is never written, erased or reset`)
        : []),
      ...(roles.has(role) ? [] : wrong([name, at], `no partition has the role ${role}`)),
      ...(listed.indexOf(role) === at ? [] : wrong([name, at], `${role} stands there twice`)),
    ]),
  )
}

const MIB_A_GB = 1024

/** Every model has sizes for every storage it comes with, and they fit into it. */
function sizesSound(family: Family): Wrong {
  return family.models.flatMap(({ code: model, boards, storages }, at) =>
    boards.flatMap((board) =>
      storages.flatMap((storageGb) => {
        const about = { model, board, storageGb }
        const placed = partitionsOf(family, about)
        const lacks = placed.find((one) => one.mib !== 'rest' && mibIn(one, about) === undefined)
        const path = ['models', at, 'storages'] as const
        if (lacks !== undefined)
          return wrong(path, `no size of ${lacks.name} for ${storageGb} GB: give it in its mib`)
        const sum = placed.reduce((total, one) => total + (mibIn(one, about) ?? 0), 0)
        return sum > storageGb * MIB_A_GB
          ? wrong(
              path,
              `the partitions of ${model} need ${sum} MiB, more than ${storageGb} GB hold`,
            )
          : []
      }),
    ),
  )
}

/** There is a mode that writes, and a way to it from off or from the running system. */
function writingReached({ modes, ways }: Profile): Wrong {
  const writing = modes.filter(({ kind }) => kind === 'writing')
  if (writing.length === 0)
    return wrong(['modes'], 'no mode of the kind writing: nothing could be written')
  const reached = new Set(
    modes.filter(({ kind }) => kind === 'off' || kind === 'system').map(({ id }) => id),
  )
  for (let grew = true; grew;) {
    const before = reached.size
    for (const { from, to } of ways)
      if (from === 'any' || from.some((mode) => reached.has(mode))) reached.add(to)
    grew = reached.size > before
  }
  return writing.flatMap(({ id }) =>
    reached.has(id)
      ? []
      : wrong(
          ['modes', modes.findIndex((mode) => mode.id === id)],
          `no way leads to ${id}: add one to ways`,
        ),
  )
}

/** A letter stands once in an alphabet, and a word once among its values: else two builds have one order. */
function grammarSound({ build }: Profile): Wrong {
  return build.segments.flatMap((segment, at) => {
    const path = ['build', 'segments', at]
    const letters = 'alphabet' in segment ? [...segment.alphabet] : []
    const values = 'values' in segment ? segment.values : []
    const twice = [...letters, ...values].find((one, index, all) => all.indexOf(one) !== index)
    return twice === undefined ? [] : wrong(path, `“${twice}” stands there twice`)
  })
}

/** What a permit is bound to can be read of a device. */
function permitsNamed({ modes, facts }: Profile): Wrong {
  const takes = modes.findIndex(({ takes }) => takes.permit !== undefined)
  const named = (facts.deviceId ?? facts.serial ?? []).length > 0
  return takes < 0 || named
    ? []
    : wrong(
        ['modes', takes, 'takes', 'permit'],
        'permits without an id: say in facts where deviceId or serial is read',
      )
}
