/** What people say of a slip on the way to its start, as most of the suites need it. */
import { THINGS } from '@plain-slate/core'

const all = (group: string, names: readonly string[], answer: string) =>
  Object.fromEntries(names.map((name) => [`${group}.${name}`, answer]))

/** Intake of a ticket handheld: tickets must survive, and nothing else that people lose is on it. */
export const INTAKE: Readonly<Record<string, string>> = {
  'survive.tickets': 'must',
  'survive.settings': 'may-go',
  ...all('survive', THINGS, 'not-there'),
  'owner.proof': 'shown',
  'owner.managed': 'agreed',
  'owner.account': 'absent',
  'condition.cell': 'sound',
  'condition.wet': 'dry',
  'history.before': 'untouched',
  'consent.no-guarantee': 'yes',
  ...all('accessory', ['sim', 'card', 'case'], 'none'),
  ...all(
    'function',
    ['screen', 'touch', 'sound', 'cameras', 'sensors', 'charging', 'radio'],
    'works',
  ),
}

/** What comes before it leaves its running system. */
export const LEAVES: Readonly<Record<string, string>> = {
  'ready.backup': 'opens',
  'ready.permission': 'done',
}

/** Everything that is signed at Ready. */
export const SIGNED: Readonly<Record<string, string>> = {
  'ready.backup': 'opens',
  ...all('ready', ['battery', 'cable', 'permission', 'bench'], 'done'),
}

/** As the API takes them. */
export const linesOf = (answers: Readonly<Record<string, string>>) => ({
  lines: Object.entries(answers).map(([topic, answer]) => ({ topic, answer })),
})
