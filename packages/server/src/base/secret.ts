/** The bench secret of the data folder: who shows it may read that folder, and is nobody by name. */
import type { Request } from 'express'
import type { Config } from './config.ts'

/** True when the request carries the bench secret of the data folder. */
export function bearsSecret(req: Request, config: Config): boolean {
  return req.headers.authorization === `Bearer ${config.benchSecret}`
}
