/** The job of the slip that the address names: read once, shared by every part of the page. */
import type { Job, LineShown, StageShown } from '@plain-slate/api'
import type { Stage } from '@plain-slate/core'
import { isOver, leastOf, reaches } from '@plain-slate/core'
import { isCode, rangeWords, sayAny } from '@plain-slate/texts'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useBrowserStore } from '../base/browser.ts'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { renew, useChange, useRead } from '../server/query.ts'
import { useSlip } from './slip.ts'

/** What is kept of a slip's job, and saying something of it. */
export function useJob() {
  const route = useRoute()
  const client = useQueryClient()
  const session = useSessionStore()
  const number = computed(() => String(route.params['number'] ?? ''))
  const params = computed(() => ({ number: number.value }))
  const job = useRead('job', () => ({ params: params.value }), {
    enabled: () => number.value !== '',
  })
  const put = useChange('jobLines')
  const { slip } = useSlip()
  /** Stopped, declined or closed: nothing more is said on it until it is opened again. */
  const over = computed(() => isOver(slip.data.value?.state))
  const may = computed(() => !over.value && reaches(session.person?.role, leastOf('slip.line')))
  const line = (topic: string): LineShown | undefined =>
    job.data.value?.lines.find((one) => one.topic === topic)

  type Draft = { readonly topic: string; readonly answer: string; readonly note?: string }
  /** One after the other: quick hands lose nothing. */
  let queue: Promise<unknown> = Promise.resolve()
  function tell(lines: readonly Draft[]): Promise<unknown> {
    const body = { lines: lines.map((one) => ({ note: '', ...one })) }
    queue = queue.then(async () => {
      await put.mutateAsync({ params: params.value, body }).catch(() => undefined)
      renew(client, 'slip')
    })
    return queue
  }
  return { number, params, job, put, may, over, line, tell }
}

export const standingOf = (job: Job | undefined, stage: Stage): StageShown | undefined =>
  job?.stages.find((one) => one.stage === stage)

/** The one-line result of a stage, as the spine says it. */
export function useStageWords(): (standing: StageShown) => string {
  const say = useSay()
  const browser = useBrowserStore()
  return ({ says, facts }) => {
    const code = `job.${says}`
    if (!isCode(code)) return says
    const stage = facts['stage']
    const time =
      typeof facts['low'] === 'number' && typeof facts['high'] === 'number'
        ? rangeWords(say, { low: facts['low'], high: facts['high'] })
        : ''
    const named = typeof stage === 'string' ? say(`stage.${stage as Stage}`) : ''
    return sayAny(browser.language, code, { ...facts, time, stage: named })
  }
}
