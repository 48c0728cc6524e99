/** The simulated devices of the other slips whose device is in the house and can hang on a port. */
import type { PartRole } from '@plain-slate/core'
import { ALDER_4, ALDER_5C, ALDER_5C_S, ALDER_5X } from '../packages/alder.ts'
import { FEN_11A, FEN_11C, FEN_8B } from '../packages/fen.ts'
import type { DemoDevice } from './demo-device.ts'
import { boardOf, handheld, ofGate, phone, tablet } from './demo-device.ts'

/** What a run of 0428 had written before its handheld went dark: all but the main part. */
const WRITTEN_0428: readonly PartRole[] = ['modem', 'kernel', 'rescue', 'variant', 'support']
const NEWEST_R4 = 'H2.104.r4'

export const IN_HOUSE: readonly DemoDevice[] = [
  phone(ALDER_5C_S, {
    serial: 'COR5NC310403',
    name: 'slip 0403, sold by Skerry',
    fused: boardOf('CORV-5N', 'C', 'Mica 3', { carrier: 'S' }),
    build: '20-2634.0-HS',
    permission: true,
  }),
  phone(ALDER_4, {
    serial: 'COR4MB200405',
    name: 'slip 0405, drained by noon',
    fused: boardOf('CORV-4M', 'B2', 'Mica 2'),
    build: '20-2640.1-HO',
  }),
  handheld({
    serial: 'TRN4490070093',
    name: 'slip 0408, dead since a cut write',
    build: 'H2.0ZP.r4',
    torn: ['loader'],
    mode: 'off',
    permission: false,
    more: { outcome: 'dead' },
  }),
  phone(ALDER_5C, {
    serial: 'COR5MC300410',
    name: 'slip 0410, asks for an earlier owner',
    fused: boardOf('CORV-5M', 'C', 'Mica 3'),
    build: '20-2634.0-HO',
    more: { account: 'asked' },
  }),
  phone(ALDER_4, {
    serial: 'COR4NB100411',
    name: 'slip 0411, of an early board',
    fused: boardOf('CORV-4N', 'B1', 'Mica 2', { storageGb: 64 }),
    build: '20-2632.0-HO',
    loader: 30,
  }),
  phone(ALDER_5X, {
    serial: 'COR5XE300412',
    name: 'slip 0412, bought abroad',
    fused: boardOf('CORV-5X', 'E', 'Flint 1', { region: 'EX' }),
    build: '20-2630.0-EO',
  }),
  phone(ALDER_4, {
    serial: 'COR4MB200413',
    name: 'slip 0413, with a permit of its maker',
    fused: boardOf('CORV-4M', 'B2', 'Mica 2'),
    build: '20-2638.0-HO',
    permission: true,
  }),
  tablet(FEN_11C, {
    serial: 'OST11C260415',
    name: 'slip 0415, its update stops half way',
    fused: boardOf('OSTR-11C', 'g1', 'Mica 3'),
    build: 'FEN-26.19A-S',
    permission: true,
    more: { merge: 'merging' },
  }),
  tablet(FEN_8B, {
    serial: 'OST8BF260419',
    name: 'slip 0419, half merged',
    fused: boardOf('OSTR-8B', 'f2', 'Reed 1', { storageGb: 64 }),
    build: 'FEN-26.19A-S',
    mode: 'off',
    more: { merge: 'merging' },
  }),
  phone(ALDER_5C, {
    serial: 'COR5MC300420',
    name: 'slip 0420, all stock, its lock open',
    port: 'P3',
    fused: boardOf('CORV-5M', 'C', 'Mica 3'),
    build: '20-2634.0-HO',
    permission: true,
    more: { lock: 'open', lockSwitch: true },
  }),
  handheld({
    serial: 'TRN449000421B2',
    name: 'slip 0421, low on charge',
    build: 'H2.0ZP.r4',
    battery: 24,
  }),
  tablet(FEN_11A, {
    serial: 'OST11A260422',
    name: 'slip 0422, restart loop',
    fused: boardOf('OSTR-11A', 'g1', 'Mica 3', { storageGb: 64 }),
    build: 'FEN-26.19A-S',
    strange: { kernel: 'FEN-26.21B-S' },
    mode: 'off',
  }),
  phone(ALDER_4, {
    serial: 'COR4NB200423',
    name: 'slip 0423, for the audit',
    fused: boardOf('CORV-4N', 'B2', 'Mica 2'),
    build: '20-2638.0-HO',
    permission: true,
  }),
  phone(ALDER_4, {
    serial: 'COR4MB200424',
    name: 'slip 0424, wants the release before',
    fused: boardOf('CORV-4M', 'B2', 'Mica 2'),
    build: '20-2640.1-HO',
    permission: true,
  }),
  ofGate('0426', 'H2.0ZP.r4'),
  handheld({
    serial: 'TRN449000427C7',
    name: 'slip 0427, one of the dozen',
    build: 'H2.0ZC.r4',
    floor: 5,
  }),
  ofGate('0428', 'H2.0ZP.r4', {
    name: 'slip 0428, went dark in a write',
    port: 'P6',
    strange: Object.fromEntries(WRITTEN_0428.map((role) => [role, NEWEST_R4])),
    mode: 'off',
    battery: 0,
    more: { fresh: true, outcome: 'normal', returns: 0 },
  }),
  ofGate('0430', NEWEST_R4),
  ofGate('0431', NEWEST_R4),
  ...['0432', '0433', '0434', '0435', '0436'].map((slip) => ofGate(slip, 'H2.0ZP.r4')),
]
