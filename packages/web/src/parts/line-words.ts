/** Lines of a slip in words: topics, answers, what goes with them. */
import { isCode, rangeWords, sayAny } from '@plain-slate/texts'
import { useBrowserStore } from '../base/browser.ts'
import { useSay } from '../base/said.ts'

/** The words of a topic or an answer; what has none is itself. */
export function useLineWords() {
  const browser = useBrowserStore()
  const say = useSay()
  const word = (code: string, facts: Record<string, string> = {}) =>
    isCode(code) ? sayAny(browser.language, code, facts) : undefined
  return {
    topic: (topic: string, what = '') =>
      word(`topic.${topic}`, { what }) ?? topic.replace(/^survive\./, ''),
    answer: (answer: string) => word(`answer.${answer}`) ?? answer,
    /** How long putting it back takes, or what of its owner's is lost with what they take off; none: nothing. */
    besides: (facts: Readonly<Record<string, string | number>>) => {
      const { mib, low, high } = facts
      if (mib !== undefined) {
        const time = rangeWords(say, { low: Number(low), high: Number(high) })
        return say('ready.restore.takes', { mib, time })
      }
      const things = String(facts['dies'] ?? '')
        .split(', ')
        .map((thing) => word(`topic.survive.${thing}`) ?? thing)
        .join(', ')
      return things === '' ? '' : (word('leave.dies', { things }) ?? '')
    },
  }
}
