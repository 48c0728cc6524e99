/**
 * Files on the twin's stores: put over the link, listed, proven, dropped. Reads a device and a request; gives the
 * device after it. What is pushed lies in memory: it goes with the mode and with the power.
 */
import type { StoreRule } from '../family/rules.ts'
import type { Store } from '../terms/device.ts'
import type { DeviceModel, StoredFile } from './state.ts'
import type { Nature, Stepped, TwinInput } from './stepped.ts'
import { done, isMute, refuse, told } from './stepped.ts'

const MIB = 1024 * 1024

/** A store that this mode gives access to over the link; undefined: it gives none. */
const storeIn = ({ family }: Nature, device: DeviceModel, store: Store): StoreRule | undefined =>
  family.stores.find(({ id, modes }) => id === store && modes.includes(device.mode))

export const isFile =
  (store: Store, name: string) =>
  (one: Pick<StoredFile, 'store' | 'name'>): boolean =>
    one.store === store && one.name === name

type OnFiles = Extract<TwinInput, { kind: 'file-put' | 'file-list' | 'file-digest' | 'file-drop' }>

/** What is asked of a store. */
export function onFiles(nature: Nature, device: DeviceModel, input: OnFiles): Stepped {
  switch (input.kind) {
    case 'file-put':
      return fileBegun(nature, device, input)
    case 'file-list':
      return fileList(nature, device, input.store)
    case 'file-digest':
      return fileDigest(nature, device, input)
    case 'file-drop':
      return fileDropped(nature, device, input)
  }
}

/** A file begun, or gone on with where the same one was begun; one of that name that is there is replaced. */
function fileBegun(
  nature: Nature,
  device: DeviceModel,
  { store, name, size, image }: Extract<TwinInput, { kind: 'file-put' }>,
): Stepped {
  if (isMute(nature.family, device)) return told(device, { kind: 'silent' })
  const rule = storeIn(nature, device, store)
  if (rule === undefined) return refuse(device, 'no-store')
  if ((size * nature.scale) / MIB > (rule.mostMiB ?? Infinity)) return refuse(device, 'no-room')
  const is = isFile(store, name)
  const here = device.files.find(is)
  const same = here === undefined ? device.incoming : { ...here, got: here.size }
  const goesOn = same !== undefined && is(same) && same.holds === image && same.size === size
  const incoming = goesOn ? same : { store, name, size, holds: image, got: 0 }
  const files = device.files.filter((one) => !is(one))
  return told(
    { ...device, files, incoming, session: undefined },
    { kind: 'kept', got: incoming.got },
  )
}

export function fileChunk(
  nature: Nature,
  device: DeviceModel,
  { offset, size }: Extract<TwinInput, { kind: 'chunk' }>,
): Stepped {
  const { incoming } = device
  if (incoming === undefined) return refuse(device, 'no-session')
  if (offset !== incoming.got || offset + size > incoming.size) return refuse(device, 'bad-offset')
  const got = incoming.got + size
  const kind = incoming.store === 'push' ? 'push' : 'copy'
  const operation = { kind, bytes: size * nature.scale } as const
  return done(nature, { ...device, incoming: { ...incoming, got } }, operation, {
    kind: 'kept',
    got,
  })
}

export function fileEnded(device: DeviceModel): Stepped {
  const { incoming } = device
  if (incoming === undefined) return refuse(device, 'no-session')
  if (incoming.got < incoming.size) return refuse(device, 'bad-offset')
  const { got, ...file } = incoming
  const files = [...device.files, file]
  return told({ ...device, files, incoming: undefined }, { kind: 'kept', got })
}

/** The device's own digest of a file: what it holds, or that nobody knows it. */
function fileDigest(
  nature: Nature,
  device: DeviceModel,
  { store, name }: Extract<TwinInput, { kind: 'file-digest' }>,
): Stepped {
  if (isMute(nature.family, device)) return told(device, { kind: 'silent' })
  if (storeIn(nature, device, store) === undefined) return refuse(device, 'no-store')
  const file = device.files.find(isFile(store, name))
  if (file === undefined) return refuse(device, 'no-file')
  const operation = { kind: 'digest', bytes: file.size * nature.scale } as const
  const image = file.holds === '' ? undefined : file.holds
  return done(nature, device, operation, { kind: 'digest', image })
}

function fileList(nature: Nature, device: DeviceModel, store: Store): Stepped {
  if (isMute(nature.family, device)) return told(device, { kind: 'silent' })
  if (storeIn(nature, device, store) === undefined) return refuse(device, 'no-store')
  const files = device.files.filter((one) => one.store === store)
  const output = { kind: 'files', files: files.map(({ name, size }) => ({ name, size })) } as const
  return done(nature, device, { kind: 'ask' }, output)
}

/** A file that is gone already is dropped as much. */
function fileDropped(
  nature: Nature,
  device: DeviceModel,
  { store, name }: Extract<TwinInput, { kind: 'file-drop' }>,
): Stepped {
  if (isMute(nature.family, device)) return told(device, { kind: 'silent' })
  if (storeIn(nature, device, store) === undefined) return refuse(device, 'no-store')
  const files = device.files.filter((one) => !isFile(store, name)(one))
  return done(nature, { ...device, files }, { kind: 'ask' }, { kind: 'done' })
}
