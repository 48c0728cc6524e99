/** A plan as it would be, had the house decided otherwise. */
export const otherwise = {
  'otherwise.title': 'Otherwise',
  'otherwise.small': 'this plan as another school would have it, each rehearsed',
  'otherwise.decided': 'decided',
  'otherwise.now': 'as it stands',
  'otherwise.school': '{question}: {answer}',
  'otherwise.steps': 'steps',
  'otherwise.hands': 'hands',
  'otherwise.needs': 'charge',
  'otherwise.charge': '{needs} %',
  'otherwise.restarts': 'restarts',
  'otherwise.beside': 'Side by side',
  'otherwise.against': 'Side by side: {school}',
  'otherwise.alike':
    '{n, plural, one {One step is the same} other {# steps are the same}}, from “{first}”',
  'otherwise.nothing': 'nothing here',
  'otherwise.reason': 'why this slip departs from the house',
  'otherwise.take': 'Plan it so',
  'otherwise.close': 'Close',
} as const
