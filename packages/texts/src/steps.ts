/** Steps of a plan and what shows that they were done, in words. Reads what is shown of them; computes nothing. */
import type { RunEvidence, StepSaid } from '@plain-slate/core'
import type { Say } from './say.ts'

/** What a step does. */
export function stepWords(say: Say, step: StepSaid): string {
  switch (step.kind) {
    case 'ready':
      return say(`step.ready.${step.facts.what}`)
    case 'enter':
      return say('step.enter', step.facts)
    case 'write': {
      const { partition, piece, pieces, mib: size } = step.facts
      return pieces === 1
        ? say('step.write', { partition, mib: size })
        : say('step.write.piece', { partition, mib: size, piece, pieces })
    }
    case 'read-back': {
      const { partition, mib: size } = step.facts
      return say('step.read-back', { partition, mib: String(size) })
    }
    case 'merge':
      return say(step.facts.do === 'wait' ? 'step.merge.wait' : 'step.merge.cancel')
    case 'first-start': {
      const { say: by, wiped } = step.facts
      if (by !== '') return say('step.first-start.hands', { say: by })
      return say(wiped === 'true' ? 'step.first-start.wiped' : 'step.first-start')
    }
    case 'meet': {
      const { mode, left } = step.facts
      return left > 0 ? say('step.meet.left', { mode, left }) : say('step.meet', { mode })
    }
    case 'restart':
      return say('step.restart', step.facts)
    case 'erase': {
      const { role, partition } = step.facts
      return say(role === 'customer' ? 'step.erase.customer' : 'step.erase', { partition })
    }
    case 'lock':
      return say('step.lock', step.facts)
    case 'permit':
      return say('step.permit', step.facts)
    case 'slot':
      return say('step.slot', step.facts)
    case 'by-hand': {
      const { what, say: how } = step.facts
      return what === 'reset' || what === 'lock-switch'
        ? say(`step.by-hand.${what}`)
        : say(`step.by-hand.${what}`, { say: how })
    }
    case 'prove': {
      const { build, loader, floor } = step.facts
      return loader === null || floor === null
        ? say('step.prove.plain', { build })
        : say('step.prove', { build, loader: String(loader), floor: String(floor) })
    }
    case 'copy':
    case 'prove-copy':
    case 'push':
    case 'install':
    case 'drop':
      return inStoreWords(say, step)
  }
}

/** Digits of a digest, and of a serial number, by which somebody knows it again. */
const DIGEST_SHOWN = 8
const SERIAL_SHOWN = 4

/** What shows that something was done. */
export function evidenceWords(say: Say, evidence: RunEvidence): string {
  switch (evidence.is) {
    case 'met':
      return say('evidence.met', { end: evidence.serial.slice(-SERIAL_SHOWN) })
    case 'digest':
      return say('evidence.digest', { digest: evidence.sha256.slice(0, DIGEST_SHOWN) })
    case 'mode':
      return say('evidence.mode', { mode: evidence.mode })
    case 'promised':
      return say('evidence.promised', { build: evidence.build })
    case 'items':
      return say('evidence.items', { items: evidence.items })
    case 'found':
      return say('evidence.found', { as: evidence.as })
    case 'person':
      return say('evidence.person', { by: evidence.by })
    case 'word':
      return say('evidence.word', { text: evidence.text })
    case 'kept':
    case 'done':
    case 'told':
    case 'table':
      return say(`evidence.${evidence.is}`)
  }
}

/** A step with a package in a store of the device. */
function inStoreWords(
  say: Say,
  step: Extract<StepSaid, { kind: 'copy' | 'prove-copy' | 'push' | 'install' | 'drop' }>,
): string {
  const { kind, facts } = step
  const { store } = facts
  if (kind === 'drop') return say('step.drop', { store })
  const about = { store, mib: String(facts.mib) }
  if (kind === 'push') return say('step.push', { mib: about.mib })
  return kind === 'install'
    ? say('step.install', { ...about, say: facts.say })
    : say(`step.${kind}`, about)
}
