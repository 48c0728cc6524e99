/** The hands of simulated devices: their bench process is asked, under its own secret, through us only. */
import type { StandInAct, StandInDevice } from '@plain-slate/api'
import { standInAnswerSchema, standInDeviceSchema } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { z } from 'zod'
import type { Config } from '../base/config.ts'
import type { Refusal } from '../base/refusal.ts'

const PATIENCE_MS = 3000

/** Simulated devices; none where no bench process is configured or it is away. */
export async function listHands(config: Config): Promise<StandInDevice[]> {
  const answer = await ask(config, '/devices')
  return answer === undefined ? [] : z.array(standInDeviceSchema).parse(answer)
}

/** Does an act; refused where there are no simulated devices. */
export async function doByHand(
  config: Config,
  act: StandInAct,
): Promise<Result<z.infer<typeof standInAnswerSchema>, Refusal>> {
  const answer = await ask(config, '/act', act)
  return answer === undefined
    ? refuse({ code: 'hands.none' })
    : ok(standInAnswerSchema.parse(answer))
}

async function ask(config: Config, path: string, body?: object): Promise<unknown> {
  const { standIns } = config
  if (standIns === undefined) return undefined
  try {
    const response = await fetch(new URL(path, standIns.address), {
      method: body === undefined ? 'GET' : 'POST',
      headers: {
        authorization: `Bearer ${standIns.secret}`,
        'content-type': 'application/json',
      },
      signal: AbortSignal.timeout(PATIENCE_MS),
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    return response.ok ? await response.json() : undefined
  } catch {
    return undefined
  }
}
