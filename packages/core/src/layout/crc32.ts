/** CRC-32 as in GPT and zip (ISO 3309, polynomial 0xEDB88320 reflected). Core has no I/O to borrow one from. */
const TABLE = Uint32Array.from({ length: 256 }, (_, index) => {
  let value = index
  for (let bit = 0; bit < 8; bit += 1) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1
  return value
})

/** The checksum of the bytes, 0 to 2^32 - 1. */
export function crc32(bytes: Uint8Array): number {
  let value = 0xffffffff
  for (const byte of bytes) value = (value >>> 8) ^ (TABLE[(value ^ byte) & 0xff] ?? 0)
  return (value ^ 0xffffffff) >>> 0
}
