/** An image of an owner's own, carried over into a package. */
export const carry = {
  'carry.open': 'Carry over an image of the owner’s own …',
  'carry.what':
    'An image that the owner made from this very package (kernel, rescue, main or support), by itself as kernel.img, or in an archive with what goes with it. It is held against the package block by block. Nobody signed it: the lock stays open, and the device is on record as not stock.',
  'carry.file': 'The image, or an archive with it',
  'carry.none': 'No archive without a package lies on the shelf yet.',
  'carry.archive': 'Which archive',
  'carry.into': 'Into which package',
  'carry.go': 'Hold it against the package',
  'carry.compares': 'Is held against it …',
} as const
