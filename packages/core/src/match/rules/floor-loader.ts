import { floorOf } from './floor.ts'

/** Nothing goes on that is below the floor of its loader. */
export const floorLoader = floorOf('state.floor.loader', 'loader')
