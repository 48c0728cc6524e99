/** Why the steps of a plan stand in their order. */
export const order = {
  'plan.order': 'Why in this order',
  'plan.order.merge-first':
    'An update of its own comes to its end first: written over, it would take the data with it.',
  'plan.order.permit-first': 'Its maker’s permit comes before the software that asks for it.',
  'plan.order.open-first':
    'The boot lock is opened first: closed, it lets nobody write these parts.',
  'plan.order.loader-first':
    '{first} goes on before {title}, which starts under loader {least} or newer.',
  'plan.order.base-first': '{first} goes on before {title}, which is a step from {build} alone.',
  'plan.order.parts': 'Parts go on as its family orders them: {roles}.',
  'plan.order.restarts':
    'It restarts after {roles}: its family asks for that before the next part.',
  'plan.order.erase-last':
    'It is erased after everything is written: stopped before that, the data are still there.',
  'plan.order.slot-last':
    'The other slot is tried once everything in it was read back; until then it starts what it had.',
  'plan.order.rescue-first':
    'The maker’s rescue goes on first: one that its owner changed takes nothing that the maker signed.',
  'plan.order.wiped-start':
    'It is emptied after the install and before the first start, which could not open the data.',
  'plan.order.drop-last': 'The copy on the device goes once the new build has shown what it is.',
  'plan.order.reset-last': 'It is reset by hand last, once the new build has shown what it is.',
  'plan.order.lock-last':
    'The lock is closed after a first start that was proven: what is closed over is what starts.',
} as const
