/** Knowing the device: what to read next, and the ways to where it is read. */
export const knowing = {
  'next.title': 'Read next: {fact}',
  'next.at': '{source}, {where}',
  'next.at.link': 'over {source}',
  'next.there': '{legs, plural, one {one way} other {# ways}} to {mode}',
  'next.there.here': 'it is in {mode}',
  'next.there.housing': 'in whatever mode it is',
  'next.where': '{at}; {there}, {time} with the reading',
  'next.rules':
    'Of {left, plural, one {one package that is left} other {# packages that are left}} it rules out {least} to {most}, {gain} by what is likely.',
  'next.rules.all':
    'Of {left, plural, one {one package that is left} other {# packages that are left}} it rules out {most}, whatever it says.',
  'next.tells':
    'It rules nothing out; {tells, plural, one {one answer waits} other {# answers wait}} for it.',
  'next.along': 'The same look tells {facts}.',
  'next.second': 'Or {fact}: {where}. {why}',
  'next.look': 'Read {fact} over the link at {port}',
  'next.deep': 'Into {mode} and back, for {fact}',
  'next.way': 'Show the way to {mode}',
  'next.hand': 'Put {fact} down',
} as const
