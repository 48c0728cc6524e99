/** The rules of fit in the order in which they are asked: what kills first, what costs most reading last. */
import type { Rule } from './rule.ts'
import { actData } from './rules/act-data.ts'
import { actMerge } from './rules/act-merge.ts'
import { opening } from './rules/act-open.ts'
import { account } from './rules/account.ts'
import { ahead } from './rules/ahead.ts'
import { base } from './rules/base.ts'
import { battery } from './rules/battery.ts'
import { board } from './rules/board.ts'
import { byEye } from './rules/by-eye.ts'
import { card } from './rules/card.ts'
import { carrier } from './rules/carrier.ts'
import { cell } from './rules/cell.ts'
import { channel } from './rules/channel.ts'
import { chipset } from './rules/chipset.ts'
import { dataFate } from './rules/data-fate.ts'
import { floorLoader } from './rules/floor-loader.ts'
import { floorMain } from './rules/floor-main.ts'
import { floorModem } from './rules/floor-modem.ts'
import { floorWhole } from './rules/floor-whole.ts'
import { here } from './rules/here.ts'
import { imagesFit } from './rules/images-fit.ts'
import { kind } from './rules/kind.ts'
import { knownFault } from './rules/known-fault.ts'
import { layoutEqual } from './rules/layout-equal.ts'
import { loaderLeast } from './rules/loader-least.ts'
import { loaderMost } from './rules/loader-most.ts'
import { loaderKept } from './rules/loader-stays.ts'
import { lock } from './rules/lock.ts'
import { lockOpen } from './rules/lock-open.ts'
import { managed } from './rules/managed.ts'
import { mark } from './rules/mark.ts'
import { merge } from './rules/merge.ts'
import { model } from './rules/model.ts'
import { calls } from './rules/calls.ts'
import { network } from './rules/network.ts'
import { neverErased } from './rules/never-erased.ts'
import { neverWritten } from './rules/never-written.ts'
import { patchDate } from './rules/patch-date.ts'
import { permitDay } from './rules/permit-day.ts'
import { permitDevice } from './rules/permit-device.ts'
import { permitHere } from './rules/permit-here.ts'
import { permitKind } from './rules/permit-kind.ts'
import { permitPackages } from './rules/permit-packages.ts'
import { permitSpent } from './rules/permit-spent.ts'
import { radioLeast } from './rules/radio-least.ts'
import { pieces } from './rules/pieces.ts'
import { present } from './rules/present.ts'
import { published } from './rules/published.ts'
import { radioLaw } from './rules/radio-law.ts'
import { radioPaired } from './rules/radio-paired.ts'
import { region } from './rules/region.ts'
import { requires } from './rules/requires.ts'
import { room } from './rules/room.ts'
import { storageHealth } from './rules/storage-health.ts'
import { salesName } from './rules/sales-name.ts'
import { sameDevice } from './rules/same-device.ts'
import { slots } from './rules/slots.ts'
import { source } from './rules/source.ts'
import { releaseStep } from './rules/step.ts'
import { storage } from './rules/storage.ts'
import { supported } from './rules/supported.ts'
import { target } from './rules/target.ts'
import { things } from './rules/things.ts'
import { together } from './rules/together.ts'
import { carried } from './rules/carried.ts'
import { twice } from './rules/twice.ts'
import { unreleased } from './rules/unreleased.ts'
import { unreleasedSource } from './rules/unreleased-source.ts'
import { untouched } from './rules/untouched.ts'
import { updates } from './rules/updates.ts'
import { wayBack } from './rules/way-back.ts'

/** Each with what it says, so that the catalogue can be held against it. */
export const DECLARED = [
  model,
  board,
  chipset,
  storage,
  target,
  salesName,
  byEye,
  sameDevice,
  region,
  carrier,
  radioLaw,
  neverWritten,
  neverErased,
  twice,
  slots,
  floorWhole,
  floorLoader,
  floorModem,
  floorMain,
  loaderLeast,
  loaderMost,
  loaderKept,
  radioLeast,
  radioPaired,
  base,
  untouched,
  releaseStep,
  patchDate,
  merge,
  lock,
  lockOpen,
  permitHere,
  permitKind,
  permitPackages,
  permitDevice,
  permitDay,
  permitSpent,
  knownFault,
  published,
  here,
  source,
  pieces,
  together,
  kind,
  channel,
  unreleasedSource,
  unreleased,
  carried,
  requires,
  ahead,
  supported,
  present,
  imagesFit,
  layoutEqual,
  managed,
  account,
  dataFate,
  things,
  updates,
  network,
  calls,
  mark,
  wayBack,
  card,
  room,
  storageHealth,
  cell,
  battery,
  opening,
  actMerge,
  actData,
] as const

export const RULES: readonly Rule[] = DECLARED
