/**
 * Where a simulated device keeps files: a small tree of real ones beside its flash, a folder for each store. What
 * its state does not know is not there; names came through the link's schema and lead nowhere else.
 */
import { createHash } from 'node:crypto'
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'
import type { Catalogue, DeviceModel, Store } from '@plain-slate/core'
import { STORES } from '@plain-slate/core'
import { bytesIn } from './file-bytes.ts'
import type { Opened } from './opened.ts'
import { openedFrom } from './opened.ts'

export type Named = { readonly store: Store; readonly name: string }

export type Stores = {
  readonly begin: (file: Named) => void
  readonly append: (file: Named, at: number, bytes: Uint8Array) => void
  /** SHA-256 of a file, as hex. */
  readonly digest: (file: Named) => string
  /** Deletes whatever a device's state does not know. */
  readonly keepOnly: (model: DeviceModel) => void
  /** Every package among its files, opened and checked by its bytes. */
  readonly packages: (model: DeviceModel, catalogue: Catalogue) => Opened
}

/** The stores in a folder; it is made when the first file comes. */
export function openStores(folder: string): Stores {
  const pathOf = ({ store, name }: Named) => join(folder, store, name)
  return {
    begin(file) {
      mkdirSync(join(folder, file.store), { recursive: true })
      writeFileSync(pathOf(file), new Uint8Array())
    },
    append(file, at, bytes) {
      const handle = openSync(pathOf(file), 'r+')
      try {
        writeSync(handle, bytes, 0, bytes.length, at)
      } finally {
        closeSync(handle)
      }
    },
    digest(file) {
      const hash = createHash('sha256')
      for (const piece of bytesIn(pathOf(file))) hash.update(piece)
      return hash.digest('hex')
    },
    keepOnly({ files, incoming }) {
      if (!existsSync(folder)) return
      const known = [...files, ...(incoming === undefined ? [] : [incoming])]
      for (const store of STORES) {
        const there = join(folder, store)
        if (!existsSync(there)) continue
        for (const name of readdirSync(there))
          if (!known.some((one) => one.store === store && one.name === name))
            rmSync(join(there, name))
      }
    },
    packages: ({ files }, catalogue) =>
      openedFrom(
        files.map((file) => ({ holds: file.holds, path: pathOf(file) })),
        catalogue,
      ),
  }
}
