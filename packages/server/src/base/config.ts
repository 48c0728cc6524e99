/**
 * What the server process is told from outside. Reads environment variables once, gives a checked
 * value or a sentence; nothing else in the server reads the environment.
 */
import { readFileSync } from 'node:fs'
import { refuse, ok } from '@plain-slate/core'
import type { Result } from '@plain-slate/core'
import { z } from 'zod'

const LOOPBACK = ['127.0.0.1', '::1', 'localhost']

const environment = z.object({
  DATABASE_URL: z.string().startsWith('postgres'),
  PLAIN_SLATE_ADDRESS: z.string().default('127.0.0.1'),
  PLAIN_SLATE_PORT: z.coerce.number().int().min(0).max(65535).default(0),
  /** File with two lines, 0600: the secret that signs cookies and the bench secret. */
  PLAIN_SLATE_SECRETS: z.string(),
  /** Folder of the vault, where bytes of archives lie by their digest. */
  PLAIN_SLATE_VAULT: z.string(),
  /** Folder of family files; none: no family is known. */
  PLAIN_SLATE_FAMILIES: z.string().default(''),
  /** Folder of the trust store: public keys (SPKI, PEM) of depots; none: no catalogue is taken in. */
  PLAIN_SLATE_TRUST: z.string().default(''),
  /** File with two lines, 0600: address and secret of the control side of simulated devices. */
  PLAIN_SLATE_STANDINS: z.string().default(''),
  /** Further host names under which a proxy reaches this server. */
  PLAIN_SLATE_HOSTS: z.string().default(''),
  /** `tls` when a proxy in front ends TLS and sets X-Forwarded-Proto. */
  PLAIN_SLATE_PROXY: z.enum(['', 'tls']).default(''),
  PLAIN_SLATE_LOG: z.enum(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
})

export type Config = {
  readonly databaseUrl: string
  readonly address: string
  readonly port: number
  readonly cookieSecret: string
  readonly benchSecret: string
  readonly vaultFolder: string
  readonly familiesFolder: string | undefined
  readonly trustFolder: string | undefined
  readonly standIns: { readonly address: string; readonly secret: string } | undefined
  readonly hosts: readonly string[]
  readonly behindTls: boolean
  readonly logLevel: string
}

/** Reads the environment. A refusal is a sentence for the one who started the process. */
export function readConfig(env: NodeJS.ProcessEnv): Result<Config, string> {
  const parsed = environment.safeParse(env)
  if (!parsed.success) return refuse(z.prettifyError(parsed.error))
  const given = parsed.data
  const behindTls = given.PLAIN_SLATE_PROXY === 'tls'
  if (!LOOPBACK.includes(given.PLAIN_SLATE_ADDRESS) && !behindTls) {
    return refuse(
      `Plain Slate listens on ${given.PLAIN_SLATE_ADDRESS} only behind a proxy that ends TLS. ` +
        'Set PLAIN_SLATE_PROXY=tls once one stands there, or stay on 127.0.0.1.',
    )
  }
  const [cookieSecret, benchSecret] = readFileSync(given.PLAIN_SLATE_SECRETS, 'utf8').split('\n')
  if (!cookieSecret || !benchSecret)
    return refuse(`The secrets file ${given.PLAIN_SLATE_SECRETS} must hold two lines.`)
  return ok({
    databaseUrl: given.DATABASE_URL,
    address: given.PLAIN_SLATE_ADDRESS,
    port: given.PLAIN_SLATE_PORT,
    cookieSecret,
    benchSecret,
    vaultFolder: given.PLAIN_SLATE_VAULT,
    familiesFolder: given.PLAIN_SLATE_FAMILIES || undefined,
    trustFolder: given.PLAIN_SLATE_TRUST || undefined,
    standIns: standInsOf(given.PLAIN_SLATE_STANDINS),
    hosts: given.PLAIN_SLATE_HOSTS.split(',').filter((host) => host !== ''),
    behindTls,
    logLevel: given.PLAIN_SLATE_LOG,
  })
}

function standInsOf(file: string): Config['standIns'] {
  if (file === '') return undefined
  const [address, secret] = readFileSync(file, 'utf8').split('\n')
  return address && secret ? { address, secret } : undefined
}
