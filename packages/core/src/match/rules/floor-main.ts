import { floorOf } from './floor.ts'

/** Nothing goes on that is below the floor of its main. */
export const floorMain = floorOf('state.floor.main', 'main')
