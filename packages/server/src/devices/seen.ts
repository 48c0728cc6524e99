/** What was seen of a device and its mode as pages show it, in its family's words. */
import type { ModeShown, Seen } from '@plain-slate/api'
import type { DeviceFacts, Family, Mode, ModeKind } from '@plain-slate/core'
import { familyOf, kindOf, modeName } from '@plain-slate/core'

/** A mode with its name; of a family that nobody here knows it is its id. */
export const modeShown = (family: Family | undefined, id: Mode): ModeShown => ({
  id,
  name: modeName(family, id),
  kind: (family === undefined ? undefined : kindOf(family, id)) ?? null,
})

/** What the mode is for in which something answers. */
export const kindSeen = (seen: Seen | null): ModeKind | 'unknown' | undefined =>
  seen === null ? undefined : (seen.mode.kind ?? 'unknown')

/** A device's facts as a port's tile shows them. */
export const seenOf = (families: readonly Family[], facts: DeviceFacts): Seen => ({
  serial: facts.serial,
  model: facts.model,
  board: facts.board ?? null,
  build: facts.build ?? null,
  mode: modeShown(familyOf(families, facts), facts.mode),
  battery: facts.batteryPercent ?? null,
  loaderVersion: facts.loaderVersion ?? null,
})
