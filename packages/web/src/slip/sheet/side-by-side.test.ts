/** Two plans held against each other: what both have is counted, what only one has stands on its side. */
import { expect, it } from 'vitest'
import { sideBySide } from './side-by-side.ts'

it('folds away what both plans do, and puts the rest side by side', () => {
  expect(
    sideBySide(['charge', 'meet', 'write main', 'start'], ['charge', 'meet', 'start']),
  ).toEqual([
    { kind: 'alike', steps: ['charge', 'meet'] },
    { kind: 'differ', now: ['write main'], then: [] },
    { kind: 'alike', steps: ['start'] },
  ])
  expect(sideBySide(['by command'], ['by keys', 'cable'])).toEqual([
    { kind: 'differ', now: ['by command'], then: ['by keys', 'cable'] },
  ])
  expect(sideBySide(['a', 'b'], ['a', 'b'])).toEqual([{ kind: 'alike', steps: ['a', 'b'] }])
})
