/**
 * What this computer tells of itself: the agent's version, room for its journals, and what a probe of the machine keeps
 * in a file that the bench file names. A file that cannot be read tells nothing, and that is said once.
 */
import { readFileSync } from 'node:fs'
import { statfs } from 'node:fs/promises'
import type { BenchComputer, Computer } from '@plain-slate/core'
import { computerFileSchema } from '@plain-slate/core'

const own: unknown = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8'))
const VERSION = String((own as { readonly version: string }).version)
const MIB = 1024 ** 2
/** More room than this is told as this, and less in steps: what moves by the minute is no news. */
const FREE_MOST = 4096
const FREE_STEP = 64

export class ComputerProbe {
  readonly #folder: string
  readonly #file: string | undefined
  readonly #bench: string | undefined
  #why = ''

  constructor(folder: string, file: string | undefined, bench: string | undefined) {
    this.#folder = folder
    this.#file = file
    this.#bench = bench
  }

  async told(): Promise<BenchComputer> {
    const { bavail, bsize } = await statfs(this.#folder)
    const free = Math.floor((bavail * bsize) / MIB / FREE_STEP) * FREE_STEP
    return {
      version: VERSION,
      freeMiB: Math.min(FREE_MOST, free),
      probe: this.#read(),
      bench: this.#bench ?? null,
    }
  }

  #read(): Computer | null {
    if (this.#file === undefined) return null
    try {
      const { format: _, ...told } = computerFileSchema.parse(
        JSON.parse(readFileSync(this.#file, 'utf8')),
      )
      this.#why = ''
      return told
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error)
      if (this.#why !== why) console.error(`${this.#file} tells nothing of this computer: ${why}`)
      this.#why = why
      return null
    }
  }
}
