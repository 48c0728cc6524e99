/** Region and carrier: a package that names them is for those, and its radio must be lawful here. */
import type { Rule } from '../rule.ts'
import { targetsOf } from '../rule.ts'

export const region: Rule = {
  id: 'identity.region',
  needs: ['region', 'carrier'],
  final: false,
  codes: ['fit.identity.region.fits', 'fit.identity.region.not', 'fit.identity.region.unlawful'],
  check: ({ region: here, carrier }, at) => {
    const named = targetsOf(at).filter((target) => target.region !== undefined)
    if (named.length === 0) return undefined
    const facts = { here: here ?? '', wanted: named.map((target) => target.region).join(', ') }
    const radio = at.shelved.manifest.images.some(({ role }) => role === 'modem')
    const unlawful = named.find(
      (target) => radio && !at.house.lawfulRegions.includes(target.region ?? ''),
    )
    if (unlawful !== undefined)
      return { verdict: 'does-not-fit', code: 'fit.identity.region.unlawful', facts }
    const admits = named.some(
      (target) =>
        target.region === here &&
        (target.carriers === undefined || target.carriers.includes(String(carrier))),
    )
    return admits
      ? { verdict: 'fits', code: 'fit.identity.region.fits', facts }
      : { verdict: 'does-not-fit', code: 'fit.identity.region.not', facts }
  },
}
