/** The rules of fit in the order in which they are asked: what kills first, what costs most reading last. */
import type { Rule } from './rule.ts'
import { base } from './rules/base.ts'
import { battery } from './rules/battery.ts'
import { board } from './rules/board.ts'
import { byEye } from './rules/by-eye.ts'
import { cell } from './rules/cell.ts'
import { chipset } from './rules/chipset.ts'
import { complete } from './rules/complete.ts'
import { dataFate } from './rules/data-fate.ts'
import { FLOOR_RULES } from './rules/floor.ts'
import { imagesFit } from './rules/images-fit.ts'
import { knownFault } from './rules/known-fault.ts'
import { layoutEqual } from './rules/layout-equal.ts'
import { loader } from './rules/loader.ts'
import { merge } from './rules/merge.ts'
import { model } from './rules/model.ts'
import { neverWritten } from './rules/never-written.ts'
import { region } from './rules/region.ts'
import { storage } from './rules/storage.ts'
import { target } from './rules/target.ts'

export const RULES: readonly Rule[] = [
  model,
  board,
  chipset,
  storage,
  target,
  byEye,
  region,
  neverWritten,
  ...FLOOR_RULES,
  loader,
  base,
  merge,
  knownFault,
  complete,
  imagesFit,
  layoutEqual,
  dataFate,
  cell,
  battery,
]
