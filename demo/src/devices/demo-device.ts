/** What a simulated device of the demo is, and what is usual of a handheld, a phone, a tablet. */
import type { DeviceModel, Fused, PartRole } from '@plain-slate/core'
import type { Line } from '../packages/line.ts'
import { TARN_R4 } from '../packages/tarn.ts'

export type DemoDevice = {
  readonly serial: string
  readonly name: string
  readonly fused: Fused
  readonly line: Line
  readonly build: string
  readonly loader: number
  /** Parts that hold another build's image: why it does not start. */
  readonly strange: Readonly<Record<string, string>>
  /** Parts of which no whole image is left. */
  readonly torn?: readonly PartRole[]
  /** Parts that its owner changed. */
  readonly modified?: readonly PartRole[]
  readonly floor: number
  /** Whatever else of its state is not as usual. */
  readonly more?: Partial<DeviceModel>
  readonly battery: number
  readonly mode: string
  readonly port: string | null
  readonly permission: boolean
  readonly items: number
  readonly pick: number
}

export const fused = (model: string, board: string): Fused => ({
  model,
  board,
  chipset: 'Slate 2',
  storageGb: 32,
  region: 'HI',
  carrier: 'O',
})
export const usual = {
  strange: {},
  mode: 'normal',
  port: null,
  permission: true,
  line: TARN_R4,
} as const
/** A phone or a tablet: its system is called so, and its permission is not given as it comes. */
export const usualOf = (line: Line) =>
  ({ strange: {}, mode: 'system', port: null, permission: false, line }) as const
export const boardOf = (
  model: string,
  board: string,
  chipset: string,
  more: Partial<Fused> = {},
): Fused => ({ model, board, chipset, storageGb: 128, region: 'HI', carrier: 'O', ...more })

export type Told = Pick<DemoDevice, 'serial' | 'name' | 'build'> & Partial<DemoDevice>

/** A handheld of the ferry line: on 0ZP under loader 7, unless something else is told. */
export const handheld = (more: Told): DemoDevice => ({
  ...usual,
  fused: fused('BRAK-H2', 'r4'),
  loader: 7,
  floor: 6,
  battery: 62,
  items: 96,
  pick: 0.5,
  ...more,
})
export const ofGate = (slip: string, build: string, more: Partial<DemoDevice> = {}): DemoDevice =>
  handheld({
    serial: `TRN44900${slip}A${slip.slice(-1)}`,
    name: `slip ${slip}, one of the dozen`,
    build,
    ...more,
  })
export const phone = (line: Line, more: Told & Pick<DemoDevice, 'fused'>): DemoDevice => ({
  ...usualOf(line),
  loader: 31,
  floor: 3,
  battery: 74,
  items: 1200,
  pick: 0.5,
  ...more,
})
export const tablet = (line: Line, more: Told & Pick<DemoDevice, 'fused'>): DemoDevice =>
  phone(line, { loader: 11, floor: 4, items: 300, ...more })
