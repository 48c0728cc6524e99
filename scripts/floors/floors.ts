/**
 * The house's floors as numbered data: a file of core imports from its own folder or from lower floors
 * only, and a package imports only the packages named here. `floors.test.ts` holds the sources against
 * it, one test a forbidden arrow.
 */

/** Folders of core by floor, from the ground. A folder of a later part is entered when it comes. */
export const CORE_FLOORS: readonly (readonly string[])[] = [
  ['result', 'units'],
  ['terms', 'verdict', 'canon', 'build'],
  ['layout', 'book'],
  ['family', 'firmware', 'wire'],
  ['device', 'difference'],
  ['effect'],
  ['pace'],
  ['match', 'modes'],
  ['probe', 'move'],
  ['route'],
  ['plan'],
  ['command'],
  ['twin', 'run', 'acts'],
  ['rehearsal', 'triage', 'day', 'drill', 'rulebook', 'job'],
]

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
  standins: ['api', 'core'],
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
