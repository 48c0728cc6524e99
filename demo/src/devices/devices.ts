/** The simulated devices of the demo: what each is, what stands on it, where it lies. */
import type { DeviceModel, Fused, PartRole } from '@plain-slate/core'
import { ALDER_4, ALDER_5C } from '../packages/alder.ts'
import { FEN_11A } from '../packages/fen.ts'
import type { Line } from '../packages/line.ts'
import { TARN_R4, TARN_R5 } from '../packages/tarn.ts'

export type DemoDevice = {
  readonly serial: string
  readonly name: string
  readonly fused: Fused
  readonly line: Line
  readonly build: string
  readonly loader: number
  /** Parts that hold another build's image: why it does not start. */
  readonly strange: Readonly<Record<string, string>>
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

const fused = (model: string, board: string): Fused => ({
  model,
  board,
  chipset: 'Slate 2',
  storageGb: 32,
  region: 'HI',
  carrier: 'O',
})
const usual = { strange: {}, mode: 'normal', port: null, permission: true, line: TARN_R4 } as const
/** A phone or a tablet: its system is called so, and its permission is not given as it comes. */
const usualOf = (line: Line) =>
  ({ strange: {}, mode: 'system', port: null, permission: false, line }) as const
const boardOf = (
  model: string,
  board: string,
  chipset: string,
  more: Partial<Fused> = {},
): Fused => ({ model, board, chipset, storageGb: 128, region: 'HI', carrier: 'O', ...more })

/** Four hang on a port at the start: P6 waits for the device of 0428, P3 is free for whatever comes next. */
export const DEMO_DEVICES: readonly DemoDevice[] = [
  {
    ...usual,
    serial: 'TRN4490077F31',
    name: 'slip 0417, handheld 14',
    fused: fused('BRAK-H2K', 'r4'),
    build: 'H2.0ZC.r4',
    loader: 6,
    floor: 5,
    battery: 71,
    port: 'P2',
    items: 214,
    pick: 0.5,
  },
  {
    ...usual,
    serial: 'TRN4490081C04',
    name: 'slip 0425, first of the dozen',
    fused: fused('BRAK-H2', 'r4'),
    build: 'H2.0ZP.r4',
    loader: 7,
    floor: 6,
    battery: 64,
    items: 88,
    pick: 0.2,
  },
  {
    ...usual,
    serial: 'TRN5510020A77',
    name: 'slip 0418, in a new housing',
    line: TARN_R5,
    fused: fused('BRAK-H2', 'r5'),
    build: 'H2.0ZP.r5',
    loader: 7,
    floor: 6,
    battery: 58,
    items: 31,
    pick: 0.8,
  },
  {
    ...usual,
    serial: 'TRN4490093B58',
    name: 'slip 0409, restart loop',
    fused: fused('BRAK-H2', 'r4'),
    build: 'H2.104.r4',
    loader: 7,
    strange: { kernel: 'H2.0ZP.r4' },
    floor: 6,
    battery: 47,
    mode: 'off',
    items: 120,
    pick: 0.6,
  },
  {
    ...usualOf(ALDER_4),
    serial: 'COR4NB201177',
    name: 'slip 0401, comes back to the first picture',
    fused: boardOf('CORV-4N', 'B2', 'Mica 2'),
    build: '20-2638.0-HO',
    loader: 31,
    strange: { kernel: '20-2640.1-HO' },
    floor: 3,
    battery: 52,
    mode: 'off',
    items: 1840,
    pick: 0.4,
  },
  {
    ...usualOf(ALDER_4),
    serial: 'COR4NB201406',
    port: 'P1',
    name: 'slip 0406, wants the release before',
    fused: boardOf('CORV-4N', 'B2', 'Mica 2'),
    build: '20-2632.0-HO',
    loader: 30,
    floor: 2,
    battery: 83,
    permission: true,
    items: 960,
    pick: 0.5,
  },
  {
    ...usualOf(ALDER_5C),
    serial: 'COR5NC309414',
    port: 'P4',
    permission: true,
    name: 'slip 0414, its owner’s own kernel and rescue',
    fused: boardOf('CORV-5N', 'C', 'Mica 3', { storageGb: 256 }),
    build: '20-2634.0-HO',
    loader: 31,
    modified: ['kernel', 'rescue'],
    floor: 3,
    battery: 77,
    items: 2210,
    pick: 0.3,
    more: { lock: 'open', marks: ['custom'] },
  },
  {
    ...usualOf(FEN_11A),
    serial: 'OST11A260407',
    port: 'P5',
    permission: true,
    name: 'slip 0407, on the trial track',
    fused: boardOf('OSTR-11A', 'g1', 'Mica 3', { storageGb: 64 }),
    build: 'FEN-26.21A-T',
    loader: 11,
    floor: 4,
    battery: 66,
    items: 340,
    pick: 0.6,
  },
]
