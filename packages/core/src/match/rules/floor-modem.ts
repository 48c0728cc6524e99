import { floorOf } from './floor.ts'

/** Nothing goes on that is below the floor of its modem. */
export const floorModem = floorOf('state.floor.modem', 'modem')
