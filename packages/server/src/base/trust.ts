/**
 * The trust store: public keys that whoever keeps this machine laid into a folder, and whose signature a text bears.
 * Reads the folder and a text; gives the keys, and the one that signed it.
 */
import { createHash, createPublicKey, verify } from 'node:crypto'
import { readFile, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import type { Workshop } from './workshop.ts'

/** A key of the trust store: its file's name, its text, and the digest by which it is the same under another name. */
export type TrustedKey = { readonly name: string; readonly pem: string; readonly id: string }

const PEM = '.pem'

/** Public keys (SPKI, PEM) that whoever keeps this machine laid into the trust store, by their files' names; what is none is left out. */
export async function trustedKeys({
  config: { trustFolder },
}: Workshop): Promise<readonly TrustedKey[]> {
  if (trustFolder === undefined) return []
  const files = (await readdir(trustFolder).catch(() => [])).filter((one) => one.endsWith(PEM))
  const keys = await Promise.all(
    files.sort().map(async (file) => {
      const pem = await readFile(join(trustFolder, file), 'utf8').catch(() => '')
      const id = keyIdOf(pem)
      return id === undefined ? [] : [{ name: file.slice(0, -PEM.length), pem, id }]
    }),
  )
  return keys.flat()
}

/** SHA-256 of the key itself (SPKI, DER); undefined where it is no Ed25519 key. */
function keyIdOf(pem: string): string | undefined {
  try {
    const key = createPublicKey(pem)
    if (key.asymmetricKeyType !== 'ed25519') return undefined
    return createHash('sha256')
      .update(key.export({ type: 'spki', format: 'der' }))
      .digest('hex')
  } catch {
    return undefined
  }
}

/** The trusted key that signed a text (Ed25519, in base64); undefined: none did. */
export const signerOf = (
  keys: readonly TrustedKey[],
  text: string,
  signature: string,
): TrustedKey | undefined =>
  keys.find(({ pem }) => verify(null, Buffer.from(text), pem, Buffer.from(signature, 'base64')))
