/** What more is done on a slip, and what is due later: on the slip, at the counter and on the customer's sheet. */
export const dues = {
  'again.title': 'More to do on this slip',
  'again.small': 'back to stock after service, a lock closed later, another build',
  'again.hint':
    'What was done stays on record, and what was said at the counter stands. Readings, route, plan and signatures begin anew.',
  'again.intent': 'What for',
  'again.go': 'Another plan on this slip',
  'dues.title': 'Due later',
  'dues.small': 'stands at the counter when its day comes; nothing waits for it',
  'dues.day': '(year-month-day)',
  'dues.put': 'Put it down',
  'dues.put.of': 'Put it down: {what}',
  'dues.none': 'Not needed',
  'dues.none.of': 'Not needed: {what}',
  'dues.done': 'Done',
  'due.updates': 'Updates held back until',
  'due.updates.why':
    'The next one would undo what was asked for. Until then no patch of its maker reaches it.',
  'due.patch': 'Look for the next patch from',
  'due.patch.why': 'by the patch that was written and the days of this house',
  'due.support': 'Its maker’s support ends',
  'due.support.why': 'as the package itself tells',
  'due.lock': 'The switch for its lock opens',
  'due.lock.why': 'It is greyed for its family’s days after a set-up, counted from today.',
  'due.permit': 'Its maker’s permit is expected',
  'due.permit.why':
    'A permit takes days and is for this device alone. Put down when it was promised.',
  'sheet.due.updates':
    'Updates are held back until {on}. Until then it gets no patches; take the next update after that day.',
  'sheet.due.patch': 'Look for its next patch from {on}.',
  'sheet.due.support': 'Its maker supports it until {on}.',
  'sheet.due.lock': 'The switch for its boot lock opens on {on}.',
  'sheet.due.permit': 'Its maker’s permit is expected on {on}.',
} as const
