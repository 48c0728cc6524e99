/**
 * What a device has in its memory alone: a file on its way, what was pushed, what waits for a hand. Reads a device;
 * gives it without them, as it is once its power goes or its mode is left.
 */
import type { DeviceModel, StoredFile } from './state.ts'

/** A file on its way stays cut short where it lies on a store; the rest is gone, and nobody confirms any more. */
export function withoutMemory(device: DeviceModel): DeviceModel {
  const { incoming, files, confirmBy } = device
  const kept = files.filter(({ store }) => store !== 'push')
  if (incoming === undefined && kept.length === files.length && confirmBy === undefined)
    return device
  const forgot = { ...device, files: [...kept, ...shortOf(incoming)], incoming: undefined }
  return confirmBy === undefined ? forgot : cancelled(forgot)
}

function shortOf(incoming: DeviceModel['incoming']): readonly StoredFile[] {
  if (incoming === undefined || incoming.store === 'push' || incoming.got === 0) return []
  const { store, name, got, size } = incoming
  return [{ store, name, size: got, holds: got === size ? incoming.holds : '' }]
}

/** Nobody said yes in time: what it wrote is not tried, and nothing of it merges. */
export const cancelled = (device: DeviceModel): DeviceModel => ({
  ...device,
  confirmBy: undefined,
  merge: device.merge === 'staged' ? 'none' : device.merge,
  slots: device.slots === undefined ? undefined : { ...device.slots, tries: undefined },
})
