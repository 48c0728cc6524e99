/**
 * Each of its images has a partition of its own: of two for one nobody knows which is to stand there in the end. The keeping
 * and the wiping form of a part are not both written.
 */
import { isOtherForm } from '../../firmware/forms.ts'
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const twice = rule({
  id: 'layout.twice',
  overruled: 'nobody',
  says: { twice: ['does-not-fit', 'partition'] },
  concerns: (at) => namedTwice(at) !== undefined,
  check: (_, at) => {
    const partition = namedTwice(at)
    return partition === undefined ? undefined : { say: 'twice', facts: { partition } }
  },
})

function namedTwice({ shelved }: Ground): string | undefined {
  const { images } = shelved.manifest
  const names = images.filter((one) => !isOtherForm(images, one)).map(({ partition }) => partition)
  return names.find((name, at) => names.indexOf(name) < at)
}
