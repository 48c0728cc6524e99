/** What leaves a mark of its maker's on the device for good, and whether the owner takes that. */
import { marksBy } from '../../effect/effect.ts'
import { rule } from '../rule.ts'

export const mark = rule({
  id: 'promise.mark',
  overruled: 'nobody',
  reads: ['lines'],
  says: {
    agreed: ['fits', 'marks'],
    ask: ['fits-if', 'marks'],
    refused: ['does-not-fit', 'marks'],
  },
  concerns: ({ family, shelved }) =>
    shelved.manifest.kind === 'service' && marksBy(family, 'service').length > 0,
  check: (_, { family, lines }) => {
    const ids = marksBy(family, 'service')
    const says = family.marks.flatMap((one) => (ids.includes(one.id) ? [one.says] : []))
    const facts = { marks: says.join(', ') }
    const marks = [{ kind: 'irreversible' }] as const
    const answer = lines?.get('consent.mark')?.answer
    if (answer === 'yes') return { say: 'agreed', facts, marks }
    if (answer === 'no') return { say: 'refused', facts, marks }
    return { say: 'ask', facts, marks, remedy: { kind: 'ask', topic: 'consent.mark' } }
  },
})
