/**
 * Region, carrier and radio law, by the targets that are for this board: one that names a region is for
 * that region, and the radio it brings must be lawful where it is used. A radio whose region nobody names
 * cannot be told.
 */
import type { Rule } from '../rule.ts'
import { admits, targetsOf } from '../rule.ts'

export const region: Rule = {
  id: 'identity.region',
  needs: ['region', 'carrier', 'model', 'board', 'chipset', 'storageGb'],
  final: false,
  codes: [
    'fit.identity.region.fits',
    'fit.identity.region.not',
    'fit.identity.region.unlawful',
    'fit.identity.region.unnamed',
  ],
  check: ({ region: here, carrier, ...board }, at) => {
    const radio = at.shelved.manifest.images.some(({ role }) => role === 'modem')
    const forBoard = targetsOf(at).filter((target) => admits(target, board))
    /* For no board here: other rules say so, and the regions of all its targets are what it is for. */
    const targets = forBoard.length > 0 ? forBoard : targetsOf(at)
    const named = targets.filter((target) => target.region !== undefined)
    const wanted = [...new Set(named.map((target) => target.region))].join(', ')
    const facts = { here: here ?? '', wanted }
    const admitting = targets.filter(
      (target) =>
        target.region === undefined ||
        (target.region === here &&
          (target.carriers === undefined || target.carriers.includes(String(carrier)))),
    )
    if (named.length === 0 && !radio) return undefined
    if (admitting.length === 0)
      return { verdict: 'does-not-fit', code: 'fit.identity.region.not', facts }
    if (!radio) return { verdict: 'fits', code: 'fit.identity.region.fits', facts }
    const lawful = (one: string | undefined) => at.house.lawfulRegions.includes(one ?? '')
    if (admitting.some((target) => lawful(target.region)))
      return { verdict: 'fits', code: 'fit.identity.region.fits', facts }
    return admitting.some((target) => target.region !== undefined)
      ? { verdict: 'does-not-fit', code: 'fit.identity.region.unlawful', facts }
      : { verdict: 'cannot-tell', code: 'fit.identity.region.unnamed', facts }
  },
}
