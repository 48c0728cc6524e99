/**
 * Findings of the rules of fit: what is so, and why. Each sentence takes exactly the facts that its rule says with
 * it: the compiler holds both against each other.
 */
import type { DECLARED } from '@plain-slate/core'
import { fitLoader } from './fit-loader.ts'
import { fitOwner } from './fit-owner.ts'
import { fitPermit } from './fit-permit.ts'

export const fit = {
  'fit.identity.model.fits': 'For {here}, which it is',
  'fit.identity.model.sibling':
    'For {wanted}, one letter off from {here}: its sibling, and another device',
  'fit.identity.model.stranger':
    'For {wanted}, one letter off from {here} and with another chipset ({chipset}): nothing of it can run here',
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
  'fit.identity.sales-name.told':
    'That it is {here} says the {sources} alone, and a name is never enough: read its model',
  'fit.identity.by-eye.seen': 'The board was looked at: its fuses say {here}',
  'fit.identity.by-eye.look':
    'The fuses say {here}, and others of weight disagree ({fact}): look at the board itself',
  'fit.identity.same.same': 'It answers as {here}, as it did before',
  'fit.identity.same.other':
    'It answers as {here}, and on this slip {before} was read: two devices, or a board that was replaced',
  'fit.identity.region.fits': 'For region {here}, which it is',
  'fit.identity.region.not': 'For region {wanted}; this is {here}',
  'fit.identity.region.moves':
    'Sold in region {here}, to be used in {wanted}: it takes up that variant and its radio, and a lead decides',
  'fit.identity.carrier.fits': 'For carrier {here}, which it is',
  'fit.identity.carrier.not': 'For carrier {wanted}; this is of {here}',
  'fit.identity.carrier.adopts':
    'Takes up carrier {wanted} in place of {here}: the data stay, and the apps of {here} until the next reset',
  'fit.identity.carrier.anew': 'Takes up carrier {wanted} in place of {here}, from new',
  'fit.promise.radio-law.fits':
    'Its radio is for region {region}, and may be operated where it is used',
  'fit.promise.radio-law.unlawful':
    'Its radio is for region {region}, which may not be operated where it is used ({lawful} may). Local rules decide',
  'fit.promise.radio-law.unnamed':
    'It brings a radio and names no region: we cannot tell whether it may be operated here',
  'fit.state.floor.fits': 'Floor {here}, package {generation}',
  'fit.state.floor.rises':
    'Floor {here}, package {generation}: the floor rises {when, select, write {as it is written} lock {as the boot lock closes} good {as its slot is found good} other {at the first start}}',
  'fit.state.floor.below':
    'Generation {generation} is below the floor {here}, which the hardware keeps',
  'fit.state.floor.loader.fits': 'Floor of the loader {here}, package {generation}',
  'fit.state.floor.loader.rises':
    'Floor of the loader {here}, package {generation}: it rises {when, select, write {as it is written} lock {as the boot lock closes} good {as its slot is found good} other {at the first start}}',
  'fit.state.floor.loader.below':
    'Generation {generation} of the loader is below its floor {here}, which the hardware keeps',
  'fit.state.floor.modem.fits': 'Floor of the radio {here}, package {generation}',
  'fit.state.floor.modem.rises':
    'Floor of the radio {here}, package {generation}: it rises {when, select, write {as it is written} lock {as the boot lock closes} good {as its slot is found good} other {at the first start}}',
  'fit.state.floor.modem.below':
    'Generation {generation} of the radio is below its floor {here}, which the hardware keeps',
  'fit.state.floor.main.fits': 'Floor of the system {here}, package {generation}',
  'fit.state.floor.main.rises':
    'Floor of the system {here}, package {generation}: it rises {when, select, write {as it is written} lock {as the boot lock closes} good {as its slot is found good} other {at the first start}}',
  'fit.state.floor.main.below':
    'Generation {generation} of the system is below its floor {here}, which the hardware keeps',
  'fit.state.known-fault.replaced':
    'Known under the maker’s {role}, in whose place its owner’s own goes: {says} ({source} on {devices, plural, one {one device} other {# devices}}, {date}). Whether it helps the first start shows',
  'fit.state.known-fault.shows':
    'A known fault, if the owner takes it: {says}; it drains {drain} times as fast ({source} on {devices, plural, one {one device} other {# devices}}, {date})',
  'fit.state.base.fits': 'It goes on build {wanted}, which is on it',
  'fit.state.base.other': 'It goes on build {wanted} alone, and {here} is on it',
  'fit.state.untouched.fits': 'Nothing that was read of {wanted} was changed',
  'fit.state.untouched.changed':
    'It goes on an untouched {wanted}: what stands on {partition} is something else',
  'fit.state.step.fits': 'It goes on release {here}',
  'fit.state.step.skips':
    'Release {least} must be on it before; this is {here}, and the ones between may not be skipped',
  'fit.state.patch-date.fits': 'Its patches are of {brings}, not older than {here}',
  'fit.state.patch-date.back': 'Its patches go back from {here} to {brings}',
  'fit.state.merge.none': 'No update of its own is under way',
  'fit.state.merge.staged': 'It has prepared an update of its own, which is taken back first',
  'fit.state.merge.merging':
    'While an update merges into it, whatever is written destroys the data: that is waited for first',
  'fit.state.lock.fits': 'The boot lock is closed over it, once it has started',
  'fit.state.lock.closed': 'The boot lock is closed already',
  'fit.state.lock.foreign':
    'The fuses expect {region}/{carrier}: the boot lock closed over anything else never starts again',
  'fit.state.lock.carried':
    'With its owner’s own {roles} on it the boot lock does not close: it stays open as long as they are there',
  'fit.state.lock.over':
    'It leaves {partition} as it is, and no known package has what stands there: whether the boot lock closes over that shows after the wipe alone. A package that writes it, or that of the build on it, settles it',
  'fit.state.lock.partly': 'The boot lock is closed over a whole package, and this is none',
  'fit.state.lock-open.open': 'The boot lock is open, and lets these parts be written',
  'fit.state.lock-open.asked':
    'It goes on with an open boot lock alone: it is opened on the way, by somebody at the device',
  'fit.state.lock-open.never':
    'It goes on with an open boot lock alone, and on this one only its maker opens it',
  'fit.state.lock-open.closed':
    'The closed boot lock lets nobody write {roles}: it is opened first, by its owner’s switch and its maker’s command',
  'fit.state.lock-open.maker':
    'The closed boot lock lets nobody write {roles}, and only its maker opens it',
  'fit.act.open.allowed': 'Its owner has let the boot lock be opened: the switch is on',
  'fit.act.open.switch': 'Its owner lets the boot lock be opened, by the switch in its settings',
  'fit.act.open.greyed':
    'Its owner lets the boot lock be opened, by the switch in its settings: it is greyed for {days} days after the first set-up',
  'fit.act.open.never':
    'On devices of carrier {carrier} the switch that opens the boot lock stays greyed for good',
  'fit.act.open.maker': 'Only its maker opens this boot lock',
  'fit.act.open.open': 'The boot lock is open already',
  'fit.act.merge.none': 'No update of its own is under way',
  'fit.act.merge.staged':
    'It has prepared an update of its own, which is taken back before the lock is turned',
  'fit.act.merge.merging':
    'While an update merges into it, turning the lock destroys the data: that is waited for first',
  'fit.act.data.keeps': 'Turning the boot lock takes nothing of the customer’s',
  'fit.act.data.opening': 'Opening the boot lock takes the customer’s data',
  'fit.act.data.closing': 'Closing the boot lock takes the customer’s data',
  'fit.act.data.reset': 'The reset takes the customer’s data',
  'fit.act.data.opening-loses':
    'Opening the boot lock takes the customer’s data, and they must survive',
  'fit.act.data.closing-loses':
    'Closing the boot lock takes the customer’s data, and they must survive',
  'fit.act.data.reset-loses': 'The reset takes the customer’s data, and they must survive',
  'fit.state.battery.fits': 'Battery {here} %, needs {needed} % with {margin} % left',
  'fit.state.battery.charge':
    'Battery {here} %, needs {needed} % with {margin} % left: charge it first',
  'fit.state.cell.damaged':
    'The cell is damaged: no charging, no writing. Isolate it and follow local rules',
  'fit.state.storage-health.worn':
    'Its storage is worn: it takes this write, and its owner is told',
  'fit.state.storage-health.failing':
    'Its storage fails: no firmware cures that, and what is written may not last. Stop, and say so',
  'fit.state.card.here': 'It is installed from the memory card that is in it',
  'fit.state.card.never':
    'It is installed from a memory card alone, and a device of this family takes none so',
  'fit.state.card.none': 'It is installed from a memory card, and none is in it: put one in',
  'fit.state.room.fits': 'It is {bytes} bytes, and {most} may lie there',
  'fit.state.room.large': 'It is {bytes} bytes, and {most} may lie there at most',
  'fit.layout.present.fits':
    'All {images, plural, one {# image} other {# images}} have their partitions',
  'fit.layout.present.absent': 'There is no partition {partition} on this device',
  'fit.layout.images.fits':
    'All {images, plural, one {# image} other {# images}} fit their partitions',
  'fit.layout.images.large': '{partition} is {bytes} bytes larger than its partition here',
  'fit.layout.slots.one': 'All of it is for one slot',
  'fit.layout.slots.mixed': 'It names parts of both slots: {partitions}',
  'fit.layout.never-written.touched': 'It would write {partition}, which is never touched',
  'fit.layout.never-written.over':
    'By the table that was read {image} lies over {partition}, which is never touched: nothing is written there',
  'fit.layout.never-erased.erased': 'It would erase {partition}, which is never touched',
  'fit.layout.never-erased.once':
    'It would erase {partition}, which is kept once: between that and its writing nothing starts the device again',
  'fit.layout.twice.twice':
    'Two of its images are for {partition}: nobody can say which of them is meant',
  'fit.layout.table.equal': 'The layout is the one this storage size has',
  'fit.layout.table.differs': '{partition} is {how} against the layout this storage size has',
  'fit.layout.table.package': '{partition} is {how} against the layout this package was made for',
  'fit.layout.table.met':
    'Its partition table was not read: it is held against the one it should have before anything is written',
  'fit.layout.table.unread':
    'Its partition table was not read, and no mode that writes shows it: we cannot tell whether all of it has its place',
  'fit.package.here.fits': '{title} is here',
  'fit.package.here.fetch': '{title} is known, but not here',
  'fit.package.published.fits': '{title} is what was published',
  'fit.package.published.signed': '{title} is what a depot signed for, taken in on {date}',
  'fit.package.published.told':
    '{title} equals the digest that somebody typed in on {date}: nobody signed for it',
  'fit.package.published.own':
    '{title} is its maker’s own: it was digested, and this house compares it with nothing',
  'fit.package.published.whole':
    '{title} is whole by its own word alone: give the digest that is published for it',
  'fit.package.published.carried':
    'Nobody outside vouches for what its owner made: {title} goes on with a lead’s word at Ready',
  'fit.package.published.refuted': '{title} is not what the maker published',
  'fit.package.source.maker': 'It comes from its maker: {source}',
  'fit.package.source.equal': 'It comes from {source}, and equals what its maker published',
  'fit.package.source.other':
    'It comes from {source} ({date}), not from its maker: only a digest of the maker’s shows that nobody changed it',
  'fit.package.source.house': 'It comes from {source}, and this house takes its maker’s alone',
  'fit.package.pieces.whole':
    'All of it lies in its {archives, plural, one {archive} other {# archives}}',
  'fit.package.pieces.stray': '{file} should lie in {archive}, which is no part of it',
  'fit.package.together.whole': 'What is signed as one set comes as one',
  'fit.package.together.half':
    'It brings {brings} without {lacks}: they are signed as one set, and halves of two never start',
  'fit.package.kind.fits': 'A {kind} package, which suits what is wanted',
  'fit.package.kind.service': 'Service software, and no service was asked for',
  'fit.package.kind.unserviced':
    'Service was asked for, and this is a {kind} package for its owner’s use',
  'fit.package.channel.stable': 'A stable build',
  'fit.package.channel.agreed':
    'A {channel} build, which the owner agreed to: it gets no further updates by itself, and going back needs a wipe',
  'fit.package.channel.ask':
    'A {channel} build: it gets no further updates by itself, and going back needs a wipe. The owner must agree',
  'fit.package.channel.refused': 'A {channel} build, and the owner wants none',
  'fit.package.unreleased.held':
    'Its maker has not released it: it goes on with the owner’s word and a lead’s',
  'fit.package.unreleased.early':
    'Its maker gives it to a few before its release: it goes on with the owner’s word and a lead’s',
  'fit.package.carried.agreed':
    'With the owner’s own {roles}, made from this very package ({percent} % of it is the maker’s still): on record as not stock',
  'fit.package.carried.ask':
    'With the owner’s own {roles}, made from this very package ({percent} % of it is the maker’s still): nobody signed it, the lock stays open, and it is on record for good ({marks}). The owner must agree',
  'fit.package.carried.refused': 'With the owner’s own {roles}, and the owner wants that no more',
  'fit.package.carried.another': 'It holds {roles} of another device’s owner',
  'fit.package.carried.closes':
    'With the owner’s own {roles}: no lock is closed over what nobody signed',
  'fit.package.carried.closed':
    'With the owner’s own {roles}, which nobody signed: it starts under an open lock only',
  'fit.package.carried.maker':
    'With the owner’s own {roles}, which nobody signed, and the lock is its maker’s to open',
  'fit.package.unreleased-source.maker': 'Not released, and from its maker: {source}',
  'fit.package.unreleased-source.other':
    'Not released by its maker, and from {source}: nobody vouches for it',
  'fit.package.requires.odd':
    'It asks for something that we cannot read ({names}), and that is not passed over',
  'fit.package.ahead.published':
    'Its manifest says that it was published on {date}, and today is {today}: that date is wrong, or the clock here is',
  'fit.package.ahead.level':
    'Its manifest says patch level {date}, and today is {today}: nobody can have made that yet, or the clock here is wrong',
  'fit.package.supported.fits': 'Its maker supports it until {until}',
  'fit.package.supported.ends': 'Its maker supports it until {until}: say that no more comes soon',
  'fit.package.supported.over': 'Its maker’s support ended on {until}: say that this is the last',
  ...fitLoader,
  ...fitOwner,
  ...fitPermit,
  'fit.promise.data.kept':
    'The customer’s data stay readable: {by, select, patchDate {the patch date} track {the track} other {the release}} goes from {here} to {brings}',
  'fit.promise.data.told':
    'The customer’s data stay readable if they were last used under {by, select, patchDate {the patch date} track {the track} other {the release}} {here}, which nobody but a person or a label says; it brings {brings}',
  'fit.promise.data.same': 'The customer’s data stay readable: what they hang on stays as it is',
  'fit.promise.data.unseen':
    'Nothing shows by what the data were last used. No build known for it is newer than release {release}: they open after, if they are whole',
  'fit.promise.data.unread':
    'We cannot tell whether the data open after: by what they were last used was not read ({facts}), and {newer}, which is known for it, is newer than this',
  'fit.promise.data.cleared':
    'By what the data were last used cannot be read, as it does not start ({facts}): they need not survive, and are erased so that it surely starts',
  'fit.promise.data.unreadable':
    'With it {by, select, patchDate {the patch date} track {the track} other {the release}} goes back from {here} to {brings}: the data stay there and nothing opens them',
  'fit.promise.data.lost':
    'With it {by, select, patchDate {the patch date} track {the track} other {the release}} goes back from {here} to {brings}: the data stay there and nothing opens them, and they must survive',
  'fit.promise.data.wiped':
    'The customer’s data are wiped: {why, select, back {what goes on could not open them} adopted {another variant is taken up from new} house {this house begins from new} erased {the package erases them} other {a step takes them}}',
  'fit.promise.data.gone': 'The customer’s data are gone by then: nothing of them is left to lose',
  'fit.promise.data.erased':
    'The customer’s data are wiped: {why, select, back {what goes on could not open them} adopted {another variant is taken up from new} house {this house begins from new} erased {the package erases them} other {a step takes them}}. They must survive',
  'fit.promise.things.unpromised':
    'Nothing can be promised of {things}: this family has no place for them that we know',
  'fit.promise.updates.come': 'Its own updates go on as {row}',
  'fit.promise.updates.none':
    'As {row} it gets no updates of its own: {build}, which runs, is not made for that row',
  'fit.promise.network.stays':
    'A network lock of {carrier} stays as it is: with another carrier’s card it may stay shut',
  'fit.promise.calls.uncertified':
    'Emergency calls of {row} are not certified in region {region}: its owner is told',
  'fit.promise.mark.agreed': 'It leaves a mark ({marks}), which the owner takes',
  'fit.promise.mark.ask': 'It leaves a mark ({marks}): the owner must agree',
  'fit.promise.mark.refused': 'It leaves a mark ({marks}), and the owner takes none',
  'fit.promise.way-back.here': 'The way back is here: {by}',
  'fit.promise.way-back.closes':
    'The way back is here, {by}, until the floor rises over it: {when, select, write {as this is written} lock {as the boot lock closes} good {as its slot is found good} other {at its first start}}',
  'fit.promise.way-back.unvouched': 'The way back is here, and nobody outside vouches for it: {by}',
  'fit.promise.way-back.fetch': 'The way back is known and not here: fetch {by} first',
  'fit.promise.way-back.none': 'There is no way back: nothing known puts {build} on it again',
} as const

/** What stands in place of a rule's own sentence, where something was not read. */
export const fitUnread = {
  'fit.cannot-tell': 'We cannot tell yet: read {facts}',
} as const

/** The facts that a sentence may use, by its code: every one that its rule says. */
type SaidBy<Rule> = Rule extends {
  readonly id: infer Id extends string
  readonly says: infer Says
}
  ? { readonly [Say in keyof Says & string as `fit.${Id}.${Say}`]: FactsIn<Says[Say]> }
  : never
type FactsIn<Said> = Said extends readonly [string, ...infer Names extends string[]]
  ? Names[number]
  : never
type Together<Union> = (Union extends unknown ? (one: Union) => void : never) extends (
  all: infer All,
) => void
  ? All
  : never
/** Every sentence of the rules, with the names of its facts. */
export type FitFacts = Together<SaidBy<(typeof DECLARED)[number]>>
