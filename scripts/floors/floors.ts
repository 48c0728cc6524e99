/**
 * The house's floors as numbered data: a file imports from its own folder or from lower floors of its
 * package only, and a package imports only the packages named here. `floors.test.ts` holds the sources
 * against it, one test a forbidden arrow.
 */

/** Folders of core by floor, from the ground. A folder of a later part is entered when it comes. */
export const CORE_FLOORS: readonly (readonly string[])[] = [
  ['result', 'units'],
  ['terms', 'verdict', 'canon', 'build'],
  ['layout', 'book'],
  ['family', 'firmware', 'wire'],
  ['device', 'difference', 'computer'],
  ['effect'],
  ['pace'],
  ['match', 'modes'],
  ['probe'],
  ['plan'],
  ['route'],
  ['command'],
  ['twin', 'run', 'acts'],
  ['rehearsal', 'triage', 'day', 'drill', 'formats', 'job'],
  ['trial'],
]

/** Folders of the server. What stands beside them (app, serve, main) joins them and is above all. */
export const SERVER_FLOORS: readonly (readonly string[])[] = [
  ['migrations'],
  ['tables'],
  ['events'],
  ['base'],
  ['edge'],
  ['book'],
  ['people', 'shelf', 'find', 'docs'],
  ['shop'],
  ['devices'],
  ['plans'],
  ['runs', 'slips'],
  ['bench'],
  ['job'],
  ['agents', 'queue'],
]

/** Folders of the interface. The router and the app beside them join them and are above all. */
export const WEB_FLOORS: readonly (readonly string[])[] = [
  ['base', 'server', 'theme'],
  ['time', 'keys', 'pictures', 'parts'],
  ['people'],
  ['shelf', 'book', 'bench', 'house', 'places'],
  ['frame', 'slip'],
]

/** Packages whose folders stand on floors. */
export const FLOORS = { core: CORE_FLOORS, server: SERVER_FLOORS, web: WEB_FLOORS } as const

export const PACKAGES = [
  'core',
  'texts',
  'archives',
  'vault',
  'api',
  'link',
  'agent',
  'standins',
  'server',
  'cli',
  'web',
] as const
export type PackageName = (typeof PACKAGES)[number]

/** Which of our packages each may import. The demo, browser tests and measurements may import any. */
export const MAY_IMPORT: Readonly<Record<PackageName, readonly PackageName[]>> = {
  core: [],
  texts: ['core'],
  archives: ['core'],
  vault: ['core'],
  api: ['core'],
  link: ['core'],
  agent: ['link', 'vault', 'api', 'core'],
  standins: ['api', 'archives', 'core'],
  server: ['api', 'archives', 'vault', 'texts', 'core'],
  cli: ['archives', 'vault', 'api', 'texts', 'core'],
  web: ['api', 'texts', 'core'],
}

/** The only packages from outside that core imports. */
export const CORE_OUTSIDERS = ['zod']
/** What core's tests may use besides. */
export const TEST_OUTSIDERS = [
  'vitest',
  'fast-check',
  'node:crypto',
  'node:fs',
  'node:zlib',
  'yaml',
]
