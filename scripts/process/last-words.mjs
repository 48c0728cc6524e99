/**
 * What a command says when something broke that nobody foresaw: one sentence, and where the rest lies. A stack helps
 * whoever mends it and nobody at a bench, so it goes to a file. Plain JavaScript: commands ask before anything is built.
 */
import { appendFileSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** A sentence longer than this is cut: some faults print all that they met. */
const LONGEST = 240

/**
 * One sentence for the terminal; the whole goes to `file`, or to a new one among the temporary files.
 * @param {string} what the command, as it is named in the sentence
 * @param {unknown} error
 * @param {string} [file]
 */
export function lastWords(what, error, file) {
  const whole = error instanceof Error ? (error.stack ?? error.message) : String(error)
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause.message : ''
  const first = (error instanceof Error ? error.message : whole).split('\n')[0] ?? ''
  const why = [first, cause].filter((one) => one !== '').join(': ')
  const short = why.length > LONGEST ? `${why.slice(0, LONGEST)} …` : why
  const where = keep(`${new Date().toISOString()} ${what}\n${whole}\n`, file)
  return `${what} ended by a fault of ours (${short}). Nothing that was kept is lost. ${where}`
}

/**
 * @param {string} text
 * @param {string | undefined} file
 */
function keep(text, file) {
  try {
    const into = file ?? join(mkdtempSync(join(tmpdir(), 'plain-slate-fault-')), 'fault.log')
    appendFileSync(into, text, { mode: 0o600 })
    return `What happened stands in ${into}; try once more.`
  } catch {
    return 'Try once more.'
  }
}

/**
 * Sees to it that this process ends with a sentence, whatever breaks.
 * @param {string} what
 * @param {(sentence: string) => void} [before] what is to be done before it ends
 */
export function endInASentence(what, before = () => undefined) {
  /** @param {unknown} error */
  const end = (error) => {
    const sentence = lastWords(what, error)
    console.error(sentence)
    before(sentence)
    process.exit(1)
  }
  process.on('uncaughtException', end)
  process.on('unhandledRejection', end)
}
