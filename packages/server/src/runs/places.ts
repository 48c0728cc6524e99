/** Where the bytes that a run still needs lie: as it was begun; what that does not say, wherever the shelf has them. */
import type { PackageProven } from '../tables/packages.ts'
import type { PlaceRow } from '../tables/run-begun.ts'
import type { RunRow } from '../tables/runs.ts'

type Shelf = readonly Pick<PackageProven, 'proof'>[]

/** The shelf is asked only where something is missing. */
export async function placesNow(
  { commands, places }: Pick<RunRow, 'commands' | 'places'>,
  holding: (images: readonly string[]) => Promise<Shelf>,
): Promise<PlaceRow[]> {
  const known = new Set(places.map(({ image }) => image))
  const wanted = commands.flatMap((one) =>
    one.kind === 'put' && !known.has(one.image) ? [one.image] : [],
  )
  if (wanted.length === 0) return [...places]
  const packages = await holding(wanted)
  const found = [...new Set(wanted)].flatMap((image): PlaceRow[] => {
    const [place] = packages.flatMap(({ proof }) => proof.places.get(image) ?? [])
    return place === undefined ? [] : [{ image, ...place }]
  })
  return [...places, ...found]
}
