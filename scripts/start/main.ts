/**
 * The start command: database, tables, demo, build, server; then it watches over them until Ctrl-C.
 * Whatever fails says why in a sentence and exits with 1, with everything it had started ended.
 */
import {
  DEMO_KEYS,
  DEMO_PEOPLE,
  DEMO_PERMITS,
  FAMILIES_FOLDER,
  permitFile,
  seedDemo,
} from '@plain-slate/demo'
import { migrate, openDatabase, putRunsInDoubt, readShop } from '@plain-slate/server'
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { openCluster, secretIn } from '../database/cluster.ts'
import { inDoubtIn } from '../database/place.ts'
import { appUrl, keepBook, prepare } from '../database/prepare.ts'
import { databaseService, superuserUrl } from '../database/service.ts'
import { keepSteady } from '../database/steady.ts'
import { CannotGoOn, POSTGRES, ensureDebian } from '../machine/debian.ts'
import { freePort, isBlocked, isFree } from '../machine/ports.ts'
import { pause } from '../process/alive.ts'
import { supervise } from '../process/supervisor.ts'
import type { Service, Supervision, Watch } from '../process/supervisor.ts'
import { keepCopies } from '../shop/nightly.ts'
import { lastWords } from '../process/last-words.mjs'
import { nodeService } from '../process/node-service.ts'
import { agentServices, simulatedBench } from './bench.ts'
import { buildProcesses } from '../build/processes.mjs'
import { buildWeb } from '../build/web.ts'
import type { Kind } from './folder.ts'
import {
  FolderTaken,
  fullDatabaseDisk,
  fullDisk,
  dropNote,
  kindOf,
  logIn,
  seeRoom,
  serverSecrets,
  takeFolder,
  writeNote,
} from './folder.ts'
import { shelveDemoIn } from './shelve-demo.ts'
import type { StartOptions } from './options.ts'
import { HELP, USUAL_PORT, readOptions } from './options.ts'
import { watchNpm } from './parent.ts'

const DATABASE = 'plain_slate'

/** Runs until it is told to end. */
export async function start(args: readonly string[]): Promise<void> {
  const begun: Supervision[] = []
  let options: StartOptions | 'help' | undefined
  try {
    options = readOptions(args, process.env)
    if (options === 'help') return console.log(HELP)
    await takeFolder(options.dataFolder)
    await run(options, begun)
  } catch (error) {
    const held = options === undefined || options === 'help' ? undefined : options.dataFolder
    const log = held === undefined ? undefined : join(held, 'logs', 'start.log')
    console.error(error instanceof CannotGoOn ? error.message : lastWords('npm start', error, log))
    await endAll(begun)
    if (held !== undefined && !(error instanceof FolderTaken)) dropNote(held)
    process.exit(1)
  }
}

/** The order in which things are begun; they end in the opposite one. */
async function run(options: StartOptions, begun: Supervision[]): Promise<void> {
  const { dataFolder } = options
  const kind = kindOf(dataFolder, options.empty)
  seeRoom(dataFolder, kind)
  const port = await webPort(options.port)
  const end = endOnce(dataFolder, begun)
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => end(0))
  watchNpm(process.env, () => end(1))
  const watch: Watch = {
    now: () => performance.now(),
    pause,
    say: (sentence) => console.log(sentence),
    hindered: () => fullDisk(dataFolder) ?? fullDatabaseDisk(dataFolder),
    gaveUp: (name) => {
      console.error(
        `Plain Slate ends, because the ${name} does not stay up. Look into ${join(dataFolder, 'logs')}`,
      )
      end(1)
    },
  }
  const building = Promise.all([buildWeb(), buildProcesses()])
  building.catch(() => undefined)
  const {
    databaseUrl,
    keep,
    port: databasePort,
  } = options.databaseUrl === undefined
    ? await ownDatabase(options, watch, begun)
    : othersDatabase(options.databaseUrl, watch)
  await fill(databaseUrl, kind, keep, inDoubtIn(dataFolder))
  await building
  const address = `http://127.0.0.1:${port}/`
  const standIns = kind === 'demo' ? await simulatedBench(dataFolder, options) : undefined
  const secretsFile = serverSecrets(dataFolder)
  const agents = agentServices(dataFolder, address, vaultIn(dataFolder))
  const server = webService(
    { databaseUrl, port, secretsFile, dataFolder, kind },
    standIns?.controlFile,
  )
  /* They end in the opposite order: web, agents, stand-ins, database. */
  for (const service of [standIns?.service, ...agents, server])
    if (service !== undefined) begun.push(await supervise(service, watch))
  if (kind === 'demo') {
    const why = await shelveDemoIn(dataFolder, address, begun)
    if (end.begun()) return
    if (why !== undefined) console.log(`Not every package of the demo is on its shelf. ${why}`)
  }
  writeNote(dataFolder, address, databasePort)
  begun.push(keepCopies(dataFolder, databaseUrl, databasePort !== undefined))
  announce(address, kind)
}

const vaultIn = (dataFolder: string) => join(dataFolder, 'vault')

type WebPlan = {
  readonly databaseUrl: string
  readonly port: number
  readonly secretsFile: string
  readonly dataFolder: string
  readonly kind: Kind
}

/** Keys of the demo's depot and maker, and the permits that its maker sent, as files that a technician puts down. */
function layFromMakers(dataFolder: string, trust: string): void {
  for (const [name, pem] of DEMO_KEYS) writeFileSync(join(trust, `${name}.pem`), pem())
  const folder = join(dataFolder, 'from-makers')
  mkdirSync(folder, { recursive: true })
  for (const permit of DEMO_PERMITS)
    writeFileSync(join(folder, `${permit.id}.json`), permitFile(permit))
}

/** The web server as a service. A shop of one's own keeps its family files in its data folder. */
function webService(plan: WebPlan, controlFile: string | undefined): Service {
  const { dataFolder } = plan
  const own = join(dataFolder, 'families')
  const trust = join(dataFolder, 'trust')
  for (const folder of [own, trust]) mkdirSync(folder, { recursive: true })
  if (plan.kind === 'demo') layFromMakers(dataFolder, trust)
  return nodeService({
    name: 'server',
    file: 'packages/server/dist/main.mjs',
    env: {
      DATABASE_URL: plan.databaseUrl,
      PLAIN_SLATE_PORT: String(plan.port),
      PLAIN_SLATE_SECRETS: plan.secretsFile,
      PLAIN_SLATE_VAULT: vaultIn(dataFolder),
      PLAIN_SLATE_TRUST: trust,
      PLAIN_SLATE_FAMILIES: plan.kind === 'demo' ? FAMILIES_FOLDER : own,
      PLAIN_SLATE_STANDINS: controlFile ?? '',
    },
    logFile: logIn(dataFolder, 'server'),
  })
}

async function webPort(wanted: number | undefined): Promise<number> {
  if (wanted === undefined) return freePort(USUAL_PORT)
  if (await isBlocked(wanted))
    throw new CannotGoOn(`Browsers open nothing on port ${wanted}. Choose another with --port N.`)
  if (await isFree(wanted)) return wanted
  throw new CannotGoOn(`Port ${wanted} is taken by another program. Choose another with --port N.`)
}

type DatabaseMet = {
  readonly databaseUrl: string
  readonly keep: () => Promise<void>
  /** Of the private cluster. */
  readonly port: number | undefined
}

/** A PostgreSQL of one's own: its administrator keeps it, and what its role may not do is said. */
const othersDatabase = (databaseUrl: string, { say }: Watch): DatabaseMet => ({
  databaseUrl,
  port: undefined,
  keep: async () => {
    if (!(await keepSteady(databaseUrl)))
      say(
        'This database’s role may not read the machine’s time since its boot, so leases and silence go by its time of day: ' +
          'do not set its clock while runs are under way. docs/shop.md says how its administrator lifts that.',
      )
  },
})

/** The private cluster: made if need be, started, watched; answers the application's address, and how its book is kept. */
async function ownDatabase(
  { dataFolder, asCopy }: StartOptions,
  watch: Watch,
  begun: Supervision[],
): Promise<DatabaseMet> {
  ensureDebian([POSTGRES])
  const cluster = openCluster(dataFolder, asCopy)
  const port = await freePort()
  const service = databaseService(cluster, port, {
    logFile: logIn(dataFolder, 'database'),
    fast: false,
    say: watch.say,
  })
  begun.push(await supervise(service, watch))
  const password = secretIn(join(dataFolder, 'application.secret'))
  await prepare((database) => superuserUrl(cluster, port, database), DATABASE, password)
  return {
    port,
    databaseUrl: appUrl(port, DATABASE, password),
    keep: async () => {
      await keepBook(superuserUrl(cluster, port, DATABASE))
      await keepSteady(superuserUrl(cluster, port, DATABASE))
    },
  }
}

/** Laying out the demo computes for seconds at a stretch, beside whatever else the machine does. */
const DATABASE_PATIENCE_MS = 300_000

/** Tables to the newest form, the book out of the application's hands, and the demo's shop the first time. */
async function fill(
  databaseUrl: string,
  kind: Kind,
  keep: () => Promise<void>,
  inDoubt: string,
): Promise<void> {
  const db = openDatabase(databaseUrl, DATABASE_PATIENCE_MS)
  try {
    await migrate(db)
    await keep()
    if (existsSync(inDoubt)) {
      await putRunsInDoubt(db)
      rmSync(inDoubt)
    }
    if (kind === 'demo' && (await readShop(db)) === undefined) await seedDemo(db, Date.now())
  } finally {
    await db.destroy()
  }
}

function announce(address: string, kind: Kind): void {
  const pins = DEMO_PEOPLE.map(({ name, role, pin }) => `  ${name}, ${role}: PIN ${pin}`)
  console.log(`Plain Slate runs at ${address}`)
  if (kind === 'demo') console.log(pins.join('\n'))
}

/** Ends everything with a code; `begun`: whether it was asked to. */
type End = ((code: number) => void) & { readonly begun: () => boolean }

/** Ends everything once, however often it is asked for: the server drains first, the database last. */
function endOnce(dataFolder: string, begun: Supervision[]): End {
  let ending = false
  const end = (code: number): void => {
    if (ending) return
    ending = true
    void endAll(begun).then(() => {
      dropNote(dataFolder)
      process.exit(code)
    })
  }
  return Object.assign(end, { begun: () => ending })
}

async function endAll(begun: Supervision[]): Promise<void> {
  for (const supervision of [...begun].reverse()) await supervision.stop()
}
