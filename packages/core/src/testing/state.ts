/** What is usual of a device's state, for core's tests: in its system, whole, closed, nothing under way. */
import type { DeviceModel } from '../twin/state.ts'

export const USUAL_STATE = {
  session: undefined,
  files: [],
  incoming: undefined,
  confirmBy: undefined,
  key: 'none',
  permit: undefined,
  spent: [],
  lock: 'closed',
  lockSwitch: false,
  setUpAt: undefined,
  permission: true,
  merge: 'none',
  mergeUntil: undefined,
  account: 'none',
  marks: [],
  fresh: false,
  outcome: 'normal',
  limits: [],
  returns: 0,
  shows: undefined,
  epoch: 0,
  at: 0,
} as const satisfies Partial<DeviceModel>
