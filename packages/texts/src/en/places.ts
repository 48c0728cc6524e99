/** Places and stages that are still to be filled say in a sentence what they will do. */
export const places = {
  'counter.title':
    '{open, plural, =0 {No slip is open} one {One slip is open} other {# slips are open}}, {due, plural, =0 {none due today} one {one due today} other {# due today}}',
  'counter.lede':
    'The Counter will lay out the rest of the day: which port is free when, and whether every time agreed can be kept.',
  'counter.hands': 'Needs hands next',
  'counter.hands.small': 'runs that wait for somebody',
  'counter.hands.at': '{word} at {port}',
  'counter.due': 'Due next',
  'counter.late': '(late)',
  'counter.due.small': 'open slips by the time agreed',
  'counter.spine.state': '{n, plural, one {# slip} other {# slips}}',
  'counter.none.title': 'No slip is open',
  'counter.none': 'Take the first device in: press N, or follow the link.',
  'drill.title': 'Nothing to practise yet',
  'drill.lede':
    'Drill will let people practise on stand-in devices: entering modes, a cut cable, a wrong sibling, with the same screens as a real job.',
  'stage.intake.will':
    'Intake will ask what must survive, item by item, what the owner agrees to, what was tried before, and what works before you touch it.',
  'stage.readings.will':
    'Readings will weigh what the device, its label and its owner say, tell what is settled or contradicted, and name the one reading to take next.',
  'stage.firmware.will':
    'Firmware will judge every package on the shelf for this very device, order the ways to what is wanted, and say why the rest is left out.',
  'stage.proof.will':
    'Proof will check a package byte by byte: complete, digest equal to the published one, signed by whom it should be.',
  'stage.compare.will':
    'Compare will set what is on the device beside what is to go on, image by image, and leave alone what is the same.',
  'stage.plan.will':
    'Plan will lay out every step with its time, its risk and what becomes of the customer’s data, rehearsed on a model of the device.',
  'stage.ready.will':
    'Ready will check the device and the bench before anything is written: backup, battery, cable, room, permissions.',
  'stage.write.will':
    'Write will send the plan to the device piece by piece, watch the pace, and say what to do when something fails.',
  'stage.first-start.will':
    'First start will hold what the device says against what was promised, fact by fact.',
  'stage.hand-back.will':
    'Hand back will undo the preparation, list what stays as a mark, and print the sheet for the customer.',
} as const
