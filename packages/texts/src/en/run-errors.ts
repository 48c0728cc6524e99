/** Refusals of what is done with a run, or with a slip while its run lives. */
export const runErrors = {
  'error.slip.run-lives':
    'A run of slip {number} stands at {port}, at step {step} of {steps}: until it has ended or was put away the slip stays as it is.',
  'error.slip.run-lives.kept': 'Slip and run are as they were.',
  'error.slip.run-lives.remedy':
    'Let it come to its end; or stop it at Write and, once it stands still, put it away.',
  'error.slip.stages-open': 'Slip {number} closes over what is not done: {what}.',
  'error.slip.stages-open.kept': 'It stays open.',
  'error.slip.stages-open.remedy':
    'Do what is open, or say in a sentence why it closes all the same.',
  'error.run.charge':
    'Its device has {charge} % of charge, and what is left of the run may draw {needs} %.',
  'error.run.charge.kept': 'The run stands where it stood.',
  'error.run.charge.remedy':
    'Charge it: switched off, or in a mode that charges. Then take the run up.',
  'error.run.against': 'It waits, since something was said against the work while it ran.',
  'error.run.against.kept': 'The run stands where it stood.',
  'error.run.against.remedy':
    'Settle what was said on the slip first; then take it up again, or put it away.',
  'error.run.unknown': 'There is no such run.',
  'error.run.unknown.kept': 'Nothing was changed.',
  'error.run.unknown.remedy': 'Look at the list of runs again.',
  'error.run.not-asked': 'That run does not wait for this.',
  'error.run.not-asked.kept': 'The run goes on as it is.',
  'error.run.not-asked.remedy': 'Look at the run: it may be a step further.',
  'error.run.over': 'That run is over.',
  'error.run.over.kept': 'It stays as it ended.',
  'error.run.over.remedy': 'Plan again from what the device is now.',
  'error.run.single-copy': 'There is one copy of {part}, and it is in doubt.',
  'error.run.single-copy.kept': 'The run keeps its port. Keep the power, keep the cable.',
  'error.run.single-copy.remedy':
    'Take the run up: it looks first, and sends again what is not whole.',
  'error.run.driven': 'That run is being driven.',
  'error.run.driven.kept': 'It goes on.',
  'error.run.driven.remedy': 'Stop it first, or wait until nobody holds it.',
} as const
