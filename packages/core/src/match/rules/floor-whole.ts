import { floorOf } from './floor.ts'

/** Nothing goes on that is below the one floor that a family keeps for the whole. */
export const floorWhole = floorOf('state.floor', 'all')
