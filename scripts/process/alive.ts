/** Telling processes apart although their numbers are used again. */
import { readFileSync } from 'node:fs'

/** A process that ran once: its number and when it began, in clock ticks after boot. */
export type Life = { readonly pid: number; readonly began: string }

/** The process of this number now, or undefined when there is none (or only its zombie). */
export function lifeOf(pid: number): Life | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    const [state = 'Z'] = fields
    /* proc(5): field 22 is starttime; the first one here is field 3. */
    const began = fields[19]
    return state === 'Z' || began === undefined ? undefined : { pid, began }
  } catch {
    return undefined
  }
}

/** True while the very process still runs. */
export function isAlive(life: Life): boolean {
  return lifeOf(life.pid)?.began === life.began
}

/** The number of a process's parent; 0 when it cannot be told. */
export function parentOf(pid: number): number {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1] ?? 0)
  } catch {
    return 0
  }
}

/** The command line of a process, its words parted by spaces. */
export function commandOf(pid: number): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')
  } catch {
    return ''
  }
}

/** Waits until `holds` answers true; false when it did not within the time. */
export async function waitUntil(
  holds: () => boolean | Promise<boolean>,
  timeoutMs: number,
): Promise<boolean> {
  const end = performance.now() + timeoutMs
  while (performance.now() < end) {
    if (await holds()) return true
    await pause(50)
  }
  return holds()
}

export const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))
