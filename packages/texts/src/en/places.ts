/** Places, and what each stage of a slip is for. */
export const places = {
  'counter.title':
    '{open, plural, =0 {No slip is open} one {One slip is open} other {# slips are open}}, {due}',
  'counter.due.n': '{n, plural, =0 {none due today} one {one due today} other {# due today}}',
  'counter.due.at-least': '{n} and more due today',
  'counter.more':
    '{n, plural, one {One more open slip} other {# more open slips}}, by the time agreed',
  'counter.lede':
    'What waits for somebody’s hands, and what is due next. A number leads to its slip.',
  'counter.hands': 'Needs hands next',
  'counter.hands.small': 'runs that wait for somebody',
  'counter.hands.at': '{word} at {port}',
  'counter.care': 'Aftercare',
  'counter.care.small': 'what is due on slips after their work',
  'counter.care.later': '{n, plural, one {One more} other {# more}} later than in a week.',
  'counter.care.calendar': 'As a calendar',
  'counter.care.ask-owner': 'ask the owner whether all is well with their data; a copy is kept',
  'counter.care.delete-copy': 'all is well: delete the copy',
  'counter.care.updates': 'updates are held back until then; tell the owner',
  'counter.care.patch': 'look for its next patch from then',
  'counter.care.support': 'its maker’s support ends',
  'counter.care.lock': 'the switch for its lock can be turned from then',
  'counter.care.permit': 'its maker’s permit should be here by then',
  'calendar.name': '{shop}: aftercare',
  'calendar.event': '{number}, {device}: {what}',
  'counter.due': 'Due next',
  'counter.late': '(late)',
  'counter.due.small': 'open slips by the time agreed',
  'counter.spine.state': '{n, plural, one {# slip} other {# slips}}',
  'counter.none.title': 'No slip is open',
  'counter.none': 'Take the first device in: press N, or follow the link.',
  'stage.intake.will':
    'Intake asks what must survive, item by item, what the owner agrees to, what was tried before, and what works before you touch it.',
  'stage.readings.will':
    'Readings weighs what the device, its label and its owner say, and tells what is settled, contradicted or missing.',
  'stage.firmware.will':
    'Firmware judges every package on the shelf for this very device, orders the ways to what is wanted, and says why the rest is left out.',
  'stage.proof.will':
    'Proof checks a package byte by byte: complete, and its archives equal to digests that came from outside.',
  'stage.compare.will':
    'Compare sets what is on the device beside what is to go on, image by image, and leaves alone what is the same.',
  'stage.plan.will':
    'Plan lays out every step with its time, its risk and what becomes of the customer’s data, rehearsed on a model of the device.',
  'stage.ready.will':
    'Ready checks the device and the bench before anything is written, and has people sign for what only they can see.',
  'stage.write.will':
    'Write sends the plan to the device piece by piece, watches the pace, and says what to do when something fails.',
  'stage.first-start.will':
    'First start holds what the device says against what was promised, fact by fact.',
  'stage.hand-back.will':
    'Hand back undoes the preparation, lists what stays as a mark, and prints the sheet for the customer.',
} as const
