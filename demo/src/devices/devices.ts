/** The four simulated devices of the demo: what each is, what stands on it, where it lies. */
import type { Fused } from '@plain-slate/core'

export type DemoDevice = {
  readonly serial: string
  readonly name: string
  readonly fused: Fused
  readonly build: string
  readonly loader: number
  /** Parts that hold another build's image: why it does not start. */
  readonly strange: Readonly<Record<string, string>>
  readonly floor: number
  readonly battery: number
  readonly mode: 'off' | 'normal'
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
const usual = { strange: {}, mode: 'normal', port: null, permission: true } as const

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
]
