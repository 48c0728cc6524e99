/** Findings of the rules of fit: what is so, and why. */
export const fit = {
  'fit.cannot-tell': 'We cannot tell yet: read {facts}',
  'fit.identity.model.fits': 'For {here}, which it is',
  'fit.identity.model.not': 'For {wanted}; this is {here}',
  'fit.identity.board.fits': 'For board {here}, which it is',
  'fit.identity.board.not': 'For board {wanted}; this board is {here}',
  'fit.identity.chipset.fits': 'For {here}, which it is',
  'fit.identity.chipset.not': 'For {wanted}; this is {here}, and nothing of it can run here',
  'fit.identity.storageGb.fits': 'For {here} GB, which it has',
  'fit.identity.storageGb.not': 'For {wanted} GB; this one has {here} GB and another layout',
  'fit.identity.target.fits': 'One of its targets is this very device: {here}',
  'fit.identity.target.mixed':
    'Each field is named in some target of it, and no single target is this device: {here}',
  'fit.identity.by-eye.seen': 'The board was looked at: its fuses say {here}',
  'fit.identity.by-eye.look':
    'The fuses say {here}, and others of weight disagree ({fact}): look at the board itself',
  'fit.identity.region.fits': 'For region {here}, which it is',
  'fit.identity.region.not': 'For region {wanted}; this is {here}',
  'fit.identity.region.unlawful':
    'Its radio is for region {wanted}, which may not be operated here. Local rules decide',
  'fit.identity.region.unnamed':
    'It brings a radio and names no region: we cannot tell whether it may be operated here',
  'fit.state.loader.fits': 'Loader {here} starts it',
  'fit.state.loader.raise': 'Loader {here} is raised to {least} on the way, by {by}',
  'fit.state.loader.old':
    'Asks for loader {least}; this is {here}, and nothing on the shelf raises it',
  'fit.state.loader.new': 'Takes loader {most} at most; this is {here}',
  'fit.state.loader.back': 'Brings loader {brings}; this is {here}, and a loader does not go back',
  'fit.state.floor.fits': 'Floor {here}, package {generation}',
  'fit.state.floor.rises':
    'Floor {here}, package {generation}: the floor rises {when, select, write {as it is written} lock {as the boot lock closes} good {as its slot is found good} other {at the first start}}',
  'fit.state.floor.below':
    'Generation {generation} is below the floor {here}, which the hardware keeps',
  'fit.state.floor.part.fits': 'Floor of {part} {here}, package {generation}',
  'fit.state.floor.part.rises':
    'Floor of {part} {here}, package {generation}: it rises {when, select, write {as it is written} lock {as the boot lock closes} good {as its slot is found good} other {at the first start}}',
  'fit.state.floor.part.below':
    'Generation {generation} of {part} is below its floor {here}, which the hardware keeps',
  'fit.state.known-fault.shows':
    'Only if the owner takes a known fault: {says} ({source} on {devices, plural, one {one device} other {# devices}}, {date})',
  'fit.state.base.fits': 'It goes on build {wanted}, which is on it',
  'fit.state.base.other': 'It goes on build {wanted} alone, and {here} is on it',
  'fit.state.base.changed':
    'It goes on an untouched {wanted}: what stands on {partition} is something else',
  'fit.state.merge.none': 'No update of its own is under way',
  'fit.state.merge.staged':
    'It has prepared an update of its own: the plan has it taken back first',
  'fit.state.merge.merging':
    'It is merging an update of its own, and what is written meanwhile destroys the data: the plan waits until that is through',
  'fit.state.battery.fits': 'Battery {here} %, needs {needed} %',
  'fit.state.battery.charge': 'Battery {here} %, needs {needed} %: charge it first',
  'fit.state.cell.damaged':
    'The cell is damaged: no charging, no writing. Isolate it and follow local rules',
  'fit.layout.images.fits':
    'All {images, plural, one {# image} other {# images}} fit their partitions',
  'fit.layout.images.absent': 'There is no partition {partition} on this device',
  'fit.layout.images.large': '{partition} is {bytes} bytes larger than its partition here',
  'fit.layout.never.touched': 'It would write {partition}, which is never touched',
  'fit.layout.table.equal': 'The layout is the one this storage size has',
  'fit.layout.table.differs': '{partition} is {how} against the layout this storage size has',
  'fit.package.here.published': '{title} is whole, and what was published',
  'fit.package.here.whole':
    '{title} is whole by its own word alone: give the digest that is published for it',
  'fit.package.here.fetch': '{title} is known, but not here',
  'fit.package.here.refuted': '{title} is not what the maker published',
  'fit.promise.data.kept': 'The customer’s data stay readable',
  'fit.promise.data.unreadable':
    'From release {here} back to {release}: the data stay there and nothing opens them',
  'fit.promise.data.unpromised':
    'Nothing can be promised of {things}: this family has no place for them that we know',
  'fit.promise.data.wiped': 'The customer’s data are wiped',
} as const
