/** What holds a run: a word against the work, a charge too low for its rest. */
export const runHolds = {
  'run.against': '{topic}: “{answer}”, said by {by}, {when}',
  'run.against.shell': '{topic}: “{answer}”, said at the shell, {when}',
  'run.short': 'Its battery has {charge} %, and what is left of the run may draw {needs} %.',
  'run.low': 'Its battery had {charge} %, and what is left of the run may draw {needs} %.',
  'run.low.do':
    'Charge it before it is taken up: switched off, or in a mode that charges. As it is met its charge counts anew.',
  'run.short.stops':
    'The run stops where it is safe to wait. Then switch the device off and charge it.',
  'run.short.goes-on':
    'Stopping here would leave less than going on: it goes on to where it is safe to wait.',
  'run.short.stopped':
    'It is not taken up before it is charged: switched off, or in a mode that charges.',
  'run.against.stops': 'The run stops where it is safe to wait.',
  'run.against.goes-on':
    'It goes on to the next place where it is safe to wait, and stops there: stopped here, it might not start again.',
  'run.against.stopped':
    'The run waits. Settle what was said; then take it up again here, or put it away.',
  'run.against.ended': 'The run had come to its end before it could be stopped.',
  'run.against.settle': 'Settle it at {stage}',
} as const
