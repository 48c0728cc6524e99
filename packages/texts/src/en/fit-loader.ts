/** Findings of the rules about loader and radio. */
export const fitLoader = {
  'fit.state.loader.least.fits': 'Loader {here} starts it',
  'fit.state.loader.least.brings': 'Loader {here} is raised to {brings}, which it brings itself',
  'fit.state.loader.least.raise': 'Loader {here} is raised to {least} on the way, by {by}',
  'fit.state.loader.least.old':
    'Asks for loader {least}; this is {here}, and nothing on the shelf for this board raises it',
  'fit.state.loader.most.fits': 'Loader {here} is not newer than it takes ({most})',
  'fit.state.loader.most.new': 'Takes loader {most} at most; this is {here}, and does not go back',
  'fit.state.loader.stays.older': 'Loader {here} stays: the {brings} that it brings is older',
  'fit.state.loader.stays.same': 'Loader {here} stays: it brings the same',
  'fit.state.loader.stays.slot':
    'The other side gets loader {brings}, older than the {here} that runs now',
  'fit.state.loader.stays.back':
    'Its device installs the whole of it by itself: the loader {brings} that it brings would go over {here}',
  'fit.state.loader.stays.enough':
    'Loader {here} stays: it starts this build, and {brings} need not be risked',
  'fit.state.radio.least.fits': 'Radio {here} runs under it',
  'fit.state.radio.least.brings': 'Radio {here} is replaced by {brings}, which it brings itself',
  'fit.state.radio.least.old': 'It wants radio {least} before it, and there is {here}',
  'fit.state.radio.least.odd':
    'It wants radio {least} before it; whether {here} is older cannot be told',
  'fit.state.radio.fits': 'The radio of {build} runs under loader {brings}',
  'fit.state.radio.apart':
    'The radio of {build} runs up to loader {most}: under {brings} it starts without radio until another build is on it',
} as const
