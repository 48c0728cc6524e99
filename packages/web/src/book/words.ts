/** What an entry of the book says, as a sentence's second half: "changed due, promise". */
import type { EventLine } from '@plain-slate/api'
import type { Json } from '@plain-slate/core'
import type { Code, Say } from '@plain-slate/texts'
import { isCode } from '@plain-slate/texts'
import { AGAIN_TOPIC } from '@plain-slate/core'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const textOf = (value: Json | undefined): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value) : ''

/** A word of the catalogue under a prefix, or the raw value where there is none. */
function word(say: Say, prefix: string, value: Json | undefined): string {
  const code = `${prefix}.${textOf(value)}`
  return isCode(code) ? say(code as 'state.open') : textOf(value)
}

const BENCH_ACTS = ['run.', 'archive.', 'catalogue.', 'family.', 'cable.', 'port.']
/** What concerns shelf and bench: done by the bench itself, by somebody at its shell, or by a person who is named. */
const ofBench = ({ act }: Pick<EventLine, 'act'>): boolean =>
  BENCH_ACTS.some((prefix) => act.startsWith(prefix))

/** Who did it; where no person is named: the bench, or somebody who was not signed in. */
export function actorWords(say: Say, line: Pick<EventLine, 'act' | 'by' | 'facts'>): string {
  if (line.facts['via'] === 'shell') return say('book.shell')
  return line.by ?? say(ofBench(line) ? 'book.bench' : 'book.somebody')
}

/** What was refused, and how often more within its hour. */
function refusedWords(say: Say, facts: EventLine['facts']): string {
  const what = textOf(facts['route'] ?? facts['act'])
  const times = Number(facts['times'] ?? 0)
  return times > 0 ? say('act.act.refused.more', { what, times }) : say('act.act.refused', { what })
}

/** The words of one entry; `name` turns a person's id into their name. */
export function actWords(say: Say, line: EventLine, name: (id: string) => string): string {
  if (!ofBench(line)) return slipWords(say, line, name)
  return laidWords(say, line) ?? benchWords(say, line)
}

/** House rules that were decided anew, by name. */
function houseWords(say: Say, facts: EventLine['facts']): string {
  const names = Object.keys((facts['to'] ?? {}) as object)
  const words = names.map((name) => word(say, 'house.rule', name))
  return say('act.house.changed', { names: words.join(', '), reason: textOf(facts['reason']) })
}

/** Something that was said of a slip. */
function lineWords(say: Say, facts: EventLine['facts']): string {
  const [group, what] = [textOf(facts['topic']), textOf(facts['answer'])]
  const topic = isCode(`topic.${group}`)
    ? say(`topic.${group}` as 'topic.ready.permission', { what: '' })
    : group.startsWith('way.')
      ? say('topic.way', { mode: group.slice('way.'.length) })
      : otherWords(say, group)
  const named = topic.replace(/:? *$/, '')
  const kind = group === AGAIN_TOPIC ? 'intent' : 'answer'
  return say('act.slip.line', { topic: named, answer: word(say, kind, what) })
}

/** A remedy that was tried, a day that was put down, or a thing that may be lost. */
function otherWords(say: Say, topic: string): string {
  const [group, what = '', does = ''] = topic.split('.')
  if (group === 'tried') return word(say, 'remedy.does', does)
  return group === 'due' ? word(say, 'due', what) : topic.replace(/^survive\./, '')
}

/** What was done about a package for one slip. */
function packageWords(
  say: Say,
  act: 'rule.overruled' | 'package.carried',
  facts: EventLine['facts'],
): string {
  const name = { package: textOf(facts['package']) }
  return act === 'rule.overruled'
    ? say('act.rule.overruled', {
        ...name,
        rule: textOf(facts['rule']),
        stands: textOf(facts['stands']),
      })
    : say('act.package.carried', { ...name, roles: textOf(facts['roles']) })
}

/** Who signed in, where, and with what. */
function sessionWords(
  say: Say,
  act: 'session.begun' | 'session.refused' | 'token.made' | 'token.struck',
  facts: EventLine['facts'],
  name: (id: string) => string,
): string {
  const person = name(textOf(facts['person']))
  switch (act) {
    case 'session.begun':
      return say(facts['at'] === 'shell' ? 'act.session.begun.shell' : 'act.session.begun')
    case 'token.made':
      return say('act.token.made', { name: textOf(facts['name']) })
    case 'token.struck':
      return say('act.token.struck', { name: textOf(facts['name']), person })
    case 'session.refused':
      return facts['why'] === 'second-pin'
        ? say('act.session.refused.second', { person })
        : say('act.session.refused')
  }
}

function slipWords(say: Say, line: EventLine, name: (id: string) => string): string {
  const { facts } = line
  switch (line.act) {
    case 'person.added':
      return say('act.person.added', {
        person: name(textOf(facts['person'])),
        role: word(say, 'role', facts['role']),
      })
    case 'person.changed':
      return say('act.person.changed', { person: name(textOf(facts['person'])) })
    case 'session.begun':
    case 'session.refused':
    case 'token.made':
    case 'token.struck':
      return sessionWords(say, line.act, facts, name)
    case 'act.refused':
      return refusedWords(say, facts)
    case 'house.changed':
      return houseWords(say, facts)
    case 'rule.overruled':
    case 'package.carried':
      return packageWords(say, line.act, facts)
    case 'slip.changed': {
      const fields = Array.isArray(facts['fields']) ? (facts['fields'] as readonly Json[]) : []
      const words = fields.map((field) => word(say, 'slip.short', field))
      return say('act.slip.changed', { fields: words.join(', ') })
    }
    case 'slip.state':
      return say('act.slip.state', {
        from: word(say, 'state', facts['from']),
        to: word(say, 'state', facts['to']),
      })
    case 'slip.line':
      return lineWords(say, facts)
    case 'slip.reading':
    case 'slip.reading-back':
      return say(`act.${line.act}`, {
        fact: word(say, 'fact', facts['fact']),
        value: textOf(facts['value']),
        source: word(say, 'source', facts['source']),
      })
    case 'slip.read':
      return say('act.slip.read', { serial: textOf(facts['serial']) })
    case 'plan.taken':
      return say('act.plan.taken', {
        package: textOf(facts['package']),
        steps: textOf(facts['steps']),
      })
    case 'copies.named':
      return say('act.copies.named', { folder: textOf(facts['folder']) || say('copies.nowhere') })
    case 'text.withdrawn':
      return say('act.text.withdrawn', {
        n: Number(facts['texts'] ?? 0),
        second: name(textOf(facts['second'])),
      })
    default:
      return isCode(`act.${line.act}`) ? say(`act.${line.act}` as Plain) : line.act
  }
}

/** How the bench was laid out. */
function laidWords(say: Say, { act, facts }: EventLine): string | undefined {
  switch (act) {
    case 'cable.added':
      return say('act.cable.added', {
        cable: textOf(facts['cable']),
        to: textOf(facts['to']) || say('bench.in-drawer'),
      })
    case 'cable.struck':
      return say('act.cable.struck', { cable: textOf(facts['cable']) })
    case 'port.added':
      return say('act.port.added', {
        port: textOf(facts['port']),
        address: textOf(facts['address']),
      })
    case 'port.struck':
      return say('act.port.struck', { port: textOf(facts['port']) })
    default:
      return undefined
  }
}

/** What happened on the shelf and on the bench. */
function benchWords(say: Say, { act, facts }: EventLine): string {
  switch (act) {
    case 'archive.shelved':
      return say('act.archive.shelved', { name: textOf(facts['name']) })
    case 'archive.refused':
      return say('act.archive.refused', {
        name: textOf(facts['name']),
        why: word(say, 'rule', facts['rule']),
      })
    case 'cable.moved':
      return say('act.cable.moved', {
        cable: textOf(facts['cable']),
        from: textOf(facts['from']) || say('bench.in-drawer'),
        to: textOf(facts['to']) || say('bench.in-drawer'),
      })
    case 'archive.failed':
    case 'archive.removed':
    case 'archive.restored':
      return say(`act.${act}`, { name: textOf(facts['name']) })
    case 'family.taken':
      return say('act.family.taken', {
        id: textOf(facts['id']),
        version: textOf(facts['version']),
      })
    case 'catalogue.taken':
      return say('act.catalogue.taken', {
        from: textOf(facts['from']),
        number: textOf(facts['number']),
        packages: textOf(facts['packages']),
      })
    case 'archive.published':
      return say('act.archive.published', {
        name: textOf(facts['name']),
        source: word(say, 'outside', facts['source']),
      })
    case 'run.started':
      return say('act.run.started', {
        package: textOf(facts['package']),
        serial: textOf(facts['serial']),
        port: textOf(facts['port']),
      })
    case 'run.done-by-hand':
      return say('act.run.done-by-hand', { ask: word(say, 'ask.short', facts['ask']) })
    case 'run.stop-asked':
      return typeof facts['charge'] === 'number' && typeof facts['needs'] === 'number'
        ? say('act.run.stop-asked.charge', { charge: facts['charge'], needs: facts['needs'] })
        : say('act.run.stop-asked')
    case 'run.stopped':
      return say('act.run.stopped', { why: word(say, 'why.short', facts['why']) })
    default:
      return isCode(`act.${act}`) ? say(`act.${act}` as Plain) : act
  }
}

/** The acts whose sentence asks for nothing. */
type Plain = Extract<Code, 'act.session.begun' | 'act.slip.opened' | 'act.run.ended'>

/** Speaks of entries with everybody's names. */
export function useActWords(): (line: EventLine) => string {
  const say = useSay()
  const people = useRead('people')
  const name = (id: string) => people.data.value?.find((one) => one.id === id)?.name ?? id
  return (line) => actWords(say, line, name)
}
