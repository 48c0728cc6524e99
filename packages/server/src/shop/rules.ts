/** Figures of this house that no house rule asks for yet. */

/** Days after handing back in which the owner is asked whether all is well. */
export const CARE_DAYS = 14

/** Days for which updates are held back where nobody says otherwise. */
export const HOLD_DAYS = 30

/** How long after its patch date a device is to be looked at for the next one. */
export const PATCH_LOOK_DAYS = 90
