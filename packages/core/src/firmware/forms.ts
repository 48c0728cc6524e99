/**
 * Of a part that comes in a keeping and a wiping form the keeping one is written, whatever becomes of the data: where they
 * are to go, a plan erases them by itself, which can be proven. Reads a package's images.
 */
import type { Image, Manifest } from './manifest.ts'

/** Whether an image is left out for the other form of its part. */
export const isOtherForm = (images: readonly Image[], image: Image): boolean =>
  image.form === 'wiping' &&
  images.some(({ role, form }) => role === image.role && form === 'keeping')

/** Whether a package takes the customer's data by a part that comes in its wiping form alone. */
export const wipesByForm = ({ images }: Pick<Manifest, 'images'>): boolean =>
  images.some((image) => image.form === 'wiping' && !isOtherForm(images, image))
