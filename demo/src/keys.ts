/**
 * Keys of the demo's depot and maker, each made from a seed that everybody can read: they vouch for made-up packages and
 * permits in a made-up shop and for nothing else.
 */
import type { KeyObject } from 'node:crypto'
import { createHash, createPrivateKey, createPublicKey, sign } from 'node:crypto'

/** PKCS #8 of an Ed25519 private key is these bytes before its 32 (RFC 8410). */
const PKCS8 = Buffer.from('302e020100300506032b657004220420', 'hex')

export const keyFrom = (seed: string): KeyObject => {
  const bytes = createHash('sha256').update(seed).digest()
  return createPrivateKey({ key: Buffer.concat([PKCS8, bytes]), format: 'der', type: 'pkcs8' })
}

/** The public half as a trust store holds it. */
export const pemOf = (key: KeyObject): string =>
  createPublicKey(key).export({ format: 'pem', type: 'spki' }).toString()

/** A signature over a text, in base64. */
export const signedBy = (key: KeyObject, text: string): string =>
  sign(null, Buffer.from(text), key).toString('base64')
