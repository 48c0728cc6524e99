/** Papers: the customer's sheet, the slip, the bench card. */
export const papers = {
  'paper.printed': 'printed {date}',
  'paper.slip.head': 'The job',
  'paper.slip.wish': 'Wanted: {intent}',
  'paper.slip.stage': 'It stands at {stage}',
  'paper.slip.route': 'Route: {title}',
  'paper.slip.plan': 'Plan: {n, plural, one {one step} other {# steps}}',
  'paper.slip.facts': 'What it is',
  'paper.card.title': 'Bench card {number}: {device}',
  'paper.card.serial': 'serial …{end}',
  'paper.card.port': 'port {port}',
  'paper.card.steps': '{n, plural, one {One step} other {# steps}}, {time}',
  'paper.card.caution':
    'Smoke, heat, swelling, liquid: people first, power off, away from it. While it writes: hands off.',
  'sheet.title': 'Slip {number}: {device}',
  'sheet.for': 'For {customer}, {date}',
  'sheet.done': 'What was done',
  'sheet.was': 'It was {build} and is {now}, patch date {date}.',
  'sheet.was.unasked':
    'It was {build}. {written} was written to it; the device was not asked what it is now.',
  'sheet.cured': 'Nothing was written to it. {by} cured it.',
  'sheet.not-done': 'Nothing was written to it.',
  'sheet.broken':
    'Writing to it was begun and did not come to its end: it stopped in step {step} of {steps}.',
  'sheet.broken.whole': 'New on it: {names}.',
  'sheet.broken.part': 'Half written, or in doubt: {names}. It may not start.',
  'sheet.found.not-as-promised': '{fate} was promised, and it was not found so',
  'sheet.found.unseen': '{fate} was promised; nobody has seen whether it is so',
  'sheet.worse': 'Not as it was, or not as promised',
  'sheet.copy':
    'We keep a copy of your data until you tell us that all is well; then it is deleted.',
  'sheet.things': 'What became of your things',
  'sheet.thing': '{name}: {fate}',
  'sheet.tally': 'Counted before: {before} items. Counted after: {after}.',
  'sheet.marks': 'What stays as a mark',
  'sheet.back': 'Given back with it',
  'sheet.next': 'What comes next',
  'sheet.tested': 'Tested after',
  'sheet.caution':
    'A warm or swollen cell: do not charge it, keep it away from people, follow local rules. Ask us when anything is odd.',
  'sheet.book': 'Entry {seq} of the house’s book, head {hash}.',
} as const
