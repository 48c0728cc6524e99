/** The rules of this house, as far as rules of fit need them, until a house can set its own. */
import type { Case } from '@plain-slate/core'

/** Percent left at the end; regions whose radio may be operated at Gannet Quay (HI and EX, not ML). */
export const HOUSE_RULES: Case['house'] = {
  batteryMargin: 20,
  batteryFloor: undefined,
  lawfulRegions: ['HI', 'EX'],
}

/** Days after handing back in which the owner is asked whether all is well. */
export const CARE_DAYS = 14

/** How long after its patch date a device is to be looked at for the next one. */
export const PATCH_LOOK_DAYS = 90
