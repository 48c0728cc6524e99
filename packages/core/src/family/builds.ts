/**
 * Builds of a family against each other, whatever they were made for. Reads a grammar and two ids; gives whether one
 * is the other or newer, or a row of it: the same build for another region or carrier, which shares its images.
 */
import { orderBuilds, readBuild } from '../build/grammar.ts'
import type { Family } from './profile.ts'

function orderOf(grammar: Family['build'], build: string, other: string) {
  const [one, two] = [readBuild(grammar, build), readBuild(grammar, other)]
  return one.ok && two.ok ? orderBuilds(grammar, one.value, two.value) : undefined
}

/** Whether a build is this one or newer. */
export function isFrom(family: Pick<Family, 'build'>, build: string, from: string): boolean {
  const order = orderOf({ ...family.build, alike: [] }, build, from)
  return order === 'same' || order === 'newer'
}

/** Whether two ids are of one build in two rows, of a family that exchanges its rows at all. */
export const isRowOf = (
  { build: grammar, adopts }: Pick<Family, 'build' | 'adopts'>,
  build: string,
  other: string,
): boolean => adopts.length > 0 && build !== other && orderOf(grammar, build, other) === 'same'
