/** What if: what is supposed, and what would come of it. */
export const whatIf = {
  'what-if.title': 'What if',
  'what-if.open': 'What if …',
  'what-if.close': 'Back to the findings',
  'what-if.busy': 'is being judged',
  'what-if.lede':
    'Suppose something: the same rules judge it here, and nothing of the slip is touched until you take it over.',
  'what-if.intent': 'What its owner wants',
  'what-if.data': 'The data',
  'what-if.add': 'Suppose something of',
  'what-if.none': 'choose',
  'what-if.unread': 'not read',
  'what-if.drop': 'drop',
  'what-if.reason': 'why it is taken over',
  'what-if.take': 'Take over on the slip',
  'what-if.facts':
    'Facts are read at Readings, and what must survive is said at Intake: neither is taken over.',
  'what-if.reset': 'Suppose nothing',
  'what-if.failed': 'It could not be judged here: {what}',
  'what-if.routes': 'Routes as they would be',
  'what-if.costs': '{minutes} min at most, data {fate}',
  'what-if.is.new': 'new',
  'what-if.is.other': 'otherwise than today',
  'what-if.is.gone': 'gone',
  'what-if.closed': 'No route would be open.',
} as const
