/** Findings of the rules about a maker's permit. */
export const fitPermit = {
  'fit.permit.here.fits': '{maker} permits it, by {id}, signed with {key}',
  'fit.permit.here.word':
    'A lead says that its maker permits it, by {id}: no signed file was brought',
  'fit.permit.kind.fits': 'The permit is for {kind}',
  'fit.permit.kind.other': 'The permit is for {kind}, and this asks for one for {asked}',
  'fit.permit.packages.fits': 'Permit {id} names this package',
  'fit.permit.packages.other': 'Permit {id} is for {packages}, and not for this package',
  'fit.permit.here.none': 'It needs a permit of its maker’s for this device, and none was brought',
  'fit.permit.device.fits': 'The permit is for {here}',
  'fit.permit.device.alike':
    'The permit says {device}; this is {here}: character {at} is {says} there and {is} here, and they look alike. Read both again',
  'fit.permit.device.other': 'The permit is for {device}; this is {here}',
  'fit.permit.day.fits': 'The permit holds until {until}',
  'fit.permit.day.early': 'The permit holds from {from} on',
  'fit.permit.day.over': 'The permit ran out on {until}',
  'fit.permit.spent.fits': 'Permit {id} was not used yet',
  'fit.permit.spent.spent': 'Permit {id} was used, and is good for one time',
} as const
