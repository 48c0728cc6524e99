/**
 * Files on their way to the shelf: sent one after the other with counted progress, then read by the
 * server. What is here lives as long as the page; what has arrived is in the server's list.
 */
import { contract } from '@plain-slate/api'
import { speaker } from '@plain-slate/texts'
import { useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Answer, Trouble } from '../server/call.ts'
import { addressOf, troubleIn } from '../server/call.ts'
import { renew } from '../server/query.ts'

export type Sending = {
  readonly key: number
  readonly name: string
  readonly bytes: number
  readonly sent: number
  readonly state: 'waiting' | 'sending' | 'arrived' | 'refused'
  readonly trouble: Trouble | undefined
  /** Once it is here: the archive that the server made of it. */
  readonly archive: string | undefined
  /** Of a catalogue that was taken in: how many packages are known by it. */
  readonly packages: number | undefined
}

/** What the server made of a file: an archive, or a catalogue with so many packages. */
export type Sent =
  { readonly archive: string } | { readonly packages: number } | { readonly trouble: Trouble }
/** Sends one file; tells the bytes that have left, as the browser counts them. */
export type Send = (file: File, sent: (bytes: number) => void) => Promise<Sent>

export const useShelving = defineStore('shelving', () => {
  const client = useQueryClient()
  const list = ref<readonly Sending[]>([])
  let last = 0
  let queue: Promise<unknown> = Promise.resolve()

  const change = (key: number, part: Partial<Sending>) => {
    list.value = list.value.map((one) => (one.key === key ? { ...one, ...part } : one))
  }

  /** Puts files into the queue; folders and empty files are told apart at once. */
  function shelve(files: readonly File[], send: Send = sendFile): void {
    for (const file of files) {
      const key = (last += 1)
      const entry = {
        key,
        name: file.name,
        bytes: file.size,
        sent: 0,
        trouble: undefined,
        archive: undefined,
        packages: undefined,
      } as const
      list.value = [...list.value, { ...entry, state: 'waiting' }]
      queue = queue.then(async () => {
        change(key, { state: 'sending' })
        const done = await send(file, (sent) => change(key, { sent }))
        change(key, { state: 'trouble' in done ? 'refused' : 'arrived', ...done })
        renew(client, 'shelf')
      })
    }
  }
  const clear = () => {
    list.value = list.value.filter(({ state }) => state === 'waiting' || state === 'sending')
  }
  return { list, shelve, clear }
})

const sentIn = (text: string, catalogue: boolean): Sent =>
  catalogue
    ? { packages: (JSON.parse(text) as Answer<'catalogueTake'>).packages }
    : { archive: (JSON.parse(text) as Answer<'shelve'>).id }

/** What a depot's catalogue is told by: archives are never called so. */
const CATALOGUE = '.json'

/** XMLHttpRequest, because it alone counts what has left. */
const sendFile: Send = (file, sent) =>
  new Promise((resolve) => {
    if (file.size === 0) return resolve({ trouble: emptyFile(file.name) })
    const request = new XMLHttpRequest()
    const catalogue = file.name.toLowerCase().endsWith(CATALOGUE)
    const address = catalogue
      ? addressOf('catalogueTake', {})
      : addressOf('shelve', { query: { name: file.name } })
    request.open(contract.shelve.method, address)
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.upload.addEventListener('progress', ({ loaded }) => sent(loaded))
    request.addEventListener('load', () =>
      resolve(
        request.status < 300
          ? sentIn(request.responseText, catalogue)
          : { trouble: troubleIn(request.responseText) },
      ),
    )
    request.addEventListener('error', () => resolve({ trouble: troubleIn('') }))
    request.send(file)
  })

function emptyFile(name: string): Trouble {
  const say = speaker('en-GB')
  return {
    code: 'archive.length',
    sentence: say('drop.empty', { name }),
    kept: say('error.archive.length.kept'),
    remedy: say('drop.empty.do'),
    requestId: '',
  }
}
