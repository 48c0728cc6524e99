/**
 * An image that its owner brought goes on that owner's device alone, under an open lock, with the owner's word: nobody
 * signed it, and what is on the device is on record as not stock.
 */
import { marksBy } from '../../effect/effect.ts'
import { rolesCarried } from '../../firmware/carried.ts'
import { rule } from '../rule.ts'

export const carried = rule({
  id: 'package.carried',
  overruled: 'nobody',
  needs: ['serial', 'bootLock'],
  reads: ['lines', 'intent'],
  broughtBy: ['open'],
  says: {
    agreed: ['fits', 'roles', 'percent'],
    ask: ['fits-if', 'roles', 'percent', 'marks'],
    refused: ['does-not-fit', 'roles'],
    another: ['does-not-fit', 'roles'],
    closes: ['does-not-fit', 'roles'],
    closed: ['fits-if', 'roles'],
    maker: ['does-not-fit', 'roles'],
  },
  concerns: ({ shelved }) => shelved.manifest.carried !== undefined,
  check: ({ serial, bootLock }, { family, intent, lines, shelved: { manifest } }) => {
    const facts = { roles: rolesCarried(manifest).join(', ') }
    if (manifest.carried?.serial !== String(serial)) return { say: 'another', facts }
    if (intent === 'relock') return { say: 'closes', facts }
    const answer = lines?.get('consent.carried')?.answer
    if (answer === 'no') return { say: 'refused', facts }
    if (bootLock !== 'open')
      return family.lock.opens === 'command'
        ? { say: 'closed', facts, remedy: { kind: 'along', act: 'open' } }
        : { say: 'maker', facts }
    const percent = Math.min(...manifest.carried.images.map((one) => one.percent))
    if (answer === 'yes') return { say: 'agreed', facts: { ...facts, percent } }
    const ids = marksBy(family, 'modified-start')
    const marks = family.marks.flatMap((one) => (ids.includes(one.id) ? [one.says] : [])).join(', ')
    return {
      say: 'ask',
      facts: { ...facts, percent, marks },
      marks: [{ kind: 'irreversible' }],
      remedy: { kind: 'ask', topic: 'consent.carried' },
    }
  },
})
