/** What a simulated device lends to the parts of it that take bytes: its state, its flash, its cut. */
import type { DeviceModel, Nature, TwinInput } from '@plain-slate/core'
import type { Handled } from './answers.ts'
import type { Flash } from './flash.ts'
import type { PlannedCut } from './planned-cut.ts'
import type { Stores } from './stores.ts'

export type Lent = {
  readonly model: () => DeviceModel
  readonly cut: () => PlannedCut | undefined
  readonly ask: (input: TwinInput, at: number) => Handled
  readonly take: (model: DeviceModel) => void
  readonly save: () => void
  readonly countsDown: () => boolean
  readonly cutNow: (bytes: number, doneAt: number) => Handled
  readonly site: () => {
    readonly nature: Nature
    readonly flash: Flash
    readonly stores: Stores
    readonly startOf: (partition: string) => number
  }
}
