/**
 * A person's stop, from the word to the device. Reads the numbers of the orders that were asked and heard,
 * and what the run is at; gives what the stop waits for, in a code. What is shown as stopped is what whoever
 * drives has confirmed, never what was asked.
 */
import type { Command } from '../command/command.ts'
import { writes } from './run.ts'

export const STOP_WAITS = ['nobody-drives', 'to-be-heard', 'piece', 'moment'] as const
/**
 * `nobody-drives`: its agent does not say that it lives; whoever drives it next stops first.
 * `to-be-heard`: the agent has not confirmed the order. `piece`: it has, and the piece under way is still
 * going over. `moment`: it has, and stops now.
 */
export type StopWaits = (typeof STOP_WAITS)[number]

/** Orders are numbered from 1; 0: none was ever given. */
export type StopOrders = { readonly asked: number; readonly met: number }

/** Whether a stop was asked that whoever drives has not met by stopping, nor a later word withdrawn. */
export const isStopOpen = ({ asked, met }: StopOrders): boolean => asked > met

/** What an open stop waits for; undefined: none is open. `heard`: the newest order the agent has heard. */
export function stopWaits(
  orders: StopOrders & { readonly heard: number },
  run: { readonly held: boolean; readonly command: Command | undefined },
): StopWaits | undefined {
  if (!isStopOpen(orders)) return undefined
  if (!run.held) return 'nobody-drives'
  if (orders.heard < orders.asked) return 'to-be-heard'
  return writes(run.command) ? 'piece' : 'moment'
}
