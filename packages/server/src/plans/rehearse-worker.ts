/** The thread that rehearses: a plan on the twin of its device, to its end and with every cut. */
import { parentPort } from 'node:worker_threads'
import { factsOf, modelled, rehearse, rehearseCuts, worstByStep } from '@plain-slate/core'
import type { ToRehearse, Rehearsed } from './rehearsals.ts'

parentPort?.on('message', ({ id, family, read, manifests, plan }: ToRehearse & { id: number }) => {
  const { nature, device, assumed: parts, assumedFacts: facts } = modelled(family, read, manifests)
  const { device: end, state } = rehearse(nature, device, plan).end
  const { phase, next: command } = state
  const done: Rehearsed = {
    worst: [...worstByStep(plan, rehearseCuts(nature, device, plan))],
    end,
    stopped: phase.kind === 'stopped' ? { command, why: phase.why } : null,
    says: factsOf(nature, end),
    assumed: { parts, facts },
  }
  parentPort?.postMessage({ id, done })
})
