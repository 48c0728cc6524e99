/** What a package does to the data by the form in which a part of it comes. */
import { expect, it } from 'vitest'
import { wipesByForm } from '../firmware/forms.ts'
import { case0417 } from '../testing/cases.ts'
import { newest, proven } from '../testing/packages.ts'
import { fateIn } from './rules/data-fate.ts'

it('takes the data only where a part comes in the form that wipes alone', () => {
  const variant = newest.images.filter(({ role }) => role === 'variant')
  const rest = newest.images.filter(({ role }) => role !== 'variant')
  const of = (...forms: readonly ('keeping' | 'wiping')[]) => ({
    ...newest,
    images: [...rest, ...forms.flatMap((form) => variant.map((one) => ({ ...one, form })))],
  })
  const packs = [of('keeping', 'wiping'), of('wiping'), newest]
  expect(packs.map(wipesByForm)).toEqual([false, true, false])
  expect(packs.map((pack) => fateIn(case0417({ shelved: proven(pack) })))).toEqual([
    'untouched',
    'erased',
    'untouched',
  ])
})
