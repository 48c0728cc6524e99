/** A slip that the shell opens for the device at a port, and the device read for it. */
import { setTimeout as pause } from 'node:timers/promises'
import type { Job } from '@plain-slate/api'
import { endOf } from '@plain-slate/texts'
import type { Args } from './args.ts'
import { wantedOf } from './args.ts'
import { Cannot } from './cannot.ts'
import { say } from './outcome.ts'
import type { Server } from './asks.ts'

/** Opens a slip for the device at a port. One that has a slip goes on there: none is left behind. Throws Cannot. */
export async function openFor(server: Server, args: Args, port: string): Promise<string> {
  const { seen, slip } = await portOf(server, port)
  if (seen === null) throw new Cannot(say('error.port.empty', { port }))
  if (slip !== null) throw new Cannot(say('cli.run.claimed', { port, number: slip.number }))
  const { number } = await server.call('slipOpen', {
    body: {
      device: `${seen.model} …${endOf(seen.serial)}`,
      model: seen.model,
      intent: wantedOf(args).intent,
      customer: '',
      promise: '',
      words: '',
      due: '',
    },
  })
  return number
}

export async function portOf(server: Server, name: string) {
  const port = (await server.call('bench')).ports.find((one) => one.name === name)
  if (port === undefined)
    throw new Cannot(
      `${say('error.port.unknown', { port: name })} ${say('error.port.unknown.remedy')}`,
    )
  return port
}

/** Between two looks whether a device has been read. */
const AGAIN_MS = 300

/** Reads the device at a port for a slip and waits until that has ended; refuses with its reason. */
export async function readFor(
  server: Server,
  number: string,
  body: { readonly port: string; readonly deep: boolean },
): Promise<Job> {
  const params = { number }
  await server.call('jobRead', { params, body })
  for (;;) {
    const job = await server.call('job', { params })
    const { look } = job
    if (look === null || look.state === 'found') return job
    if (look.trouble !== null) throw new Cannot(`${look.trouble.sentence} ${look.trouble.remedy}`)
    await pause(AGAIN_MS)
  }
}
