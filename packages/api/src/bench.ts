/** The bench: ports with what hangs there, cables, simulated devices, and reading a device. */
import { DRIVER_STANDINGS, LEDGE_WORDS, computerSchema, leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { stageSchema } from './error.ts'
import { lookSchema } from './look.ts'
import { modeShownSchema } from './mode.ts'
import { route } from './route.ts'
import { standInActSchema, standInAnswerSchema, standInDeviceSchema } from './standins.ts'

/** A device as its port saw it last. */
export const seenSchema = z.object({
  serial: z.string(),
  model: z.string(),
  /** What its mode does not show is null. */
  board: z.string().nullable(),
  build: z.string().nullable(),
  mode: modeShownSchema,
  battery: z.int().nullable(),
  loaderVersion: z.int().nullable(),
})
export type Seen = z.infer<typeof seenSchema>

export const portSchema = z.object({
  name: z.string(),
  /** What its bench is called; null: the shop has one, or none that lives holds it. */
  bench: z.string().nullable(),
  /** The address or the command behind it, as its agent tells or the house named it; null: nobody holds it. */
  way: z.string().nullable(),
  /** True: the house named it, and may strike it out. False: a file on its bench's machine names it. */
  ours: z.boolean(),
  cable: z.string().nullable(),
  note: z.string(),
  word: z.enum(LEDGE_WORDS),
  seen: seenSchema.nullable(),
  /** Something answers there that says what cannot be used: what, in a few words. */
  odd: z.string().nullable(),
  /** The look that was asked here last. */
  look: lookSchema.nullable(),
  /** The open slip whose device is here, and where it stands. */
  slip: z.object({ number: z.string(), stage: stageSchema }).nullable(),
  /** The run at this port, while it is under way or its end was not put away. */
  run: z
    .object({
      id: z.string(),
      slip: z.string().nullable(),
      title: z.string(),
      serial: z.string(),
      /** Of the step under way: share done, and where its slow limit lies on the same scale. */
      done: z.number().nullable(),
      say: z.string(),
    })
    .nullable(),
})
export type Port = z.infer<typeof portSchema>

export const cableSchema = z.object({
  name: z.string(),
  port: z.string().nullable(),
  note: z.string(),
  /** Runs that lost their device on this cable, of runs in all. */
  runs: z.int(),
  losses: z.int(),
})
export const computerShownSchema = z.object({
  agent: z.string(),
  /** What its bench is called; null: the shop has one, or nobody named it. */
  bench: z.string().nullable(),
  ports: z.array(z.string()),
  /** The agent's version; `same`: it is the server's own. */
  version: z.string().nullable(),
  same: z.boolean(),
  freeMiB: z.int().nullable(),
  /** Null: nobody tells of drivers, rivals and sleep. */
  told: computerSchema.omit({ drivers: true }).nullable(),
  /** Every driver that a family here needs. */
  drivers: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      maker: z.string(),
      modes: z.array(z.string()),
      is: z.enum(DRIVER_STANDINGS),
      version: z.int().nullable(),
      least: z.int(),
      newest: z.int(),
    }),
  ),
})
export type ComputerShown = z.infer<typeof computerShownSchema>

export const benchSchema = z.object({
  ports: z.array(portSchema),
  cables: z.array(cableSchema),
  /** False while no agent holds the ports. */
  watched: z.boolean(),
  /** The computers of living agents, with what each tells of itself. */
  computers: z.array(computerShownSchema),
  /** Where devices are simulated a computer's drivers and rivals are played too. */
  simulated: z.boolean(),
})
export type Bench = z.infer<typeof benchSchema>

const portParams = z.object({ port: z.string().min(1).max(12) })
/** Of a port or a cable, as people write it on a label. */
const newName = z.string().trim().min(1).max(12)
const note = z.string().trim().max(80).default('')

export const benchRoutes = {
  bench: route({
    method: 'get',
    path: '/api/bench',
    needs: leastOf('bench.read'),
    secret: true,
    summary: 'Ports, cables and what hangs there',
    answer: benchSchema,
  }),
  hands: route({
    method: 'get',
    path: '/api/bench/hands',
    needs: leastOf('bench.read'),
    secret: true,
    summary: 'Simulated devices, and what hands can do with each',
    answer: z.array(standInDeviceSchema),
  }),
  handsAct: route({
    method: 'post',
    path: '/api/bench/hands',
    needs: leastOf('bench.hands'),
    secret: true,
    summary: 'Do with a simulated device what hands would do',
    body: standInActSchema,
    answer: standInAnswerSchema,
  }),
  cableMove: route({
    method: 'post',
    path: '/api/bench/cables',
    needs: leastOf('bench.hands'),
    summary: 'Hang a cable on another port, or take it off',
    body: z.object({ cable: z.string().min(1).max(12), port: z.string().max(12).nullable() }),
    answer: z.array(cableSchema),
  }),
  portAdd: route({
    method: 'post',
    path: '/api/bench/ports',
    needs: leastOf('bench.lay'),
    summary: 'Name a port: the address at which a device answers there',
    body: z.object({
      name: newName,
      /** `tcp:HOST:PORT` of this machine. Another host, or a command, is named in a file on its bench's machine. */
      address: z.string().trim().max(120),
      note,
      /** The agent that is to hold it; not given where one alone lives. */
      agent: z.exactOptional(z.string().max(64)),
    }),
    answer: z.array(portSchema),
  }),
  portStrike: route({
    method: 'post',
    path: '/api/bench/ports/{port}/strike',
    needs: leastOf('bench.lay'),
    summary: 'Strike a port out: nothing is done there any more',
    params: portParams,
    answer: z.array(portSchema),
  }),
  cableAdd: route({
    method: 'post',
    path: '/api/bench/cables/new',
    needs: leastOf('bench.cables'),
    summary: 'Name a cable, and where it hangs',
    body: z.object({ name: newName, port: z.string().max(12).nullable(), note }),
    answer: z.array(cableSchema),
  }),
  cableStrike: route({
    method: 'post',
    path: '/api/bench/cables/{cable}/strike',
    needs: leastOf('bench.cables'),
    summary: 'Strike a cable out: what it went through stays in the book',
    params: z.object({ cable: z.string().min(1).max(12) }),
    answer: z.array(cableSchema),
  }),
  portRead: route({
    method: 'post',
    path: '/api/bench/ports/{port}/read',
    needs: leastOf('run.prepare'),
    summary: 'Read the device at a port: facts, and in the loader its table and digests',
    params: portParams,
    answer: lookSchema,
  }),
}
