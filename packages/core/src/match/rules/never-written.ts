/** Nothing of the package goes to calibration, identity or the customer's data. */
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const neverWritten = rule({
  id: 'layout.never-written',
  overruled: 'nobody',
  says: { touched: ['does-not-fit', 'partition'] },
  concerns: (at) => touched(at) !== undefined,
  check: (_, at) => {
    const partition = touched(at)
    return partition === undefined ? undefined : { say: 'touched', facts: { partition } }
  },
})

const touched = ({ family, shelved }: Ground): string | undefined =>
  family.partitions.find(
    ({ name, role }) =>
      family.never.includes(role) &&
      shelved.manifest.images.some((image) => image.partition === name || image.role === role),
  )?.name
