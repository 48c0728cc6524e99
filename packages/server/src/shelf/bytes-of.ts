/** A request's body, where it is no longer than it may be; undefined where it is. */
export async function bytesOf(
  source: AsyncIterable<Uint8Array>,
  most: number,
): Promise<Uint8Array | undefined> {
  const parts: Uint8Array[] = []
  let bytes = 0
  for await (const part of source) {
    bytes += part.length
    if (bytes > most) return undefined
    parts.push(part)
  }
  return Buffer.concat(parts)
}
