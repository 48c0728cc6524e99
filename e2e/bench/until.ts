/** Waiting for what happens in a shop of real processes. */

/** Asked often at first, then less: shops that are asked all the time do little else. */
const FIRST_MS = 40
const MOST_MS = 300

/** Waits until something is so, at most a minute; says what it waited for. */
export async function until(what: string, is: () => Promise<boolean>): Promise<void> {
  const late = Date.now() + 60_000
  for (let wait = FIRST_MS; ; wait = Math.min(wait * 1.5, MOST_MS)) {
    if (await is()) return
    if (Date.now() > late) throw new Error(`never: ${what}`)
    await new Promise((resolve) => setTimeout(resolve, wait))
  }
}
