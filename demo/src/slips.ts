/**
 * The demo's slips as far as their heads go: 0401 to 0436, in every stage and intent. Times are hours
 * and minutes of the demo's day (Thursday 15 October 2026) or days before and after it.
 */
import type { Intent, SlipState, Stage } from '@plain-slate/core'
import type { DemoName } from './people.ts'

export type DemoSlip = {
  readonly number: string
  readonly device: string
  readonly model: string | null
  readonly customer: string
  readonly intent: Intent
  readonly promise: string
  readonly words: string
  readonly stage: Stage
  readonly state: SlipState
  /** "day hh:mm", day counted from the demo's (0 today, -1 yesterday); null: no time agreed. */
  readonly due: string | null
  readonly opened: string
  readonly by: DemoName
  readonly notes: readonly (readonly [by: DemoName, at: string, text: string])[]
  readonly reason?: string
}

type Row = readonly [
  number: string,
  device: string,
  model: string | null,
  customer: string,
  intent: Intent,
  promise: string,
  words: string,
  stage: Stage,
  state: SlipState,
  due: string | null,
  opened: string,
  by: DemoName,
]

/* One slip, one line. */
// prettier-ignore
const ROWS: readonly Row[] = [
  ['0401', 'Alder 4', 'CORV-4N', 'Mara T.', 'restore', 'photos', 'It restarts for ever since a clean write elsewhere.', 'intake', 'open', '0 17:15', '-2 09:12', 'Tavi'],
  ['0402', 'Brakken H2', 'BRAK-H2', 'Ferry line, handheld 6', 'update', 'stored tickets', 'It has not taken an update since spring.', 'hand-back', 'closed', '-1 12:00', '-2 09:40', 'Pell'],
  ['0403', 'Alder 5', 'CORV-5N', 'Jonas B.', 'variant-change', 'photos, messages', 'A Skerry phone that is to be open.', 'intake', 'open', '1 11:00', '-2 10:05', 'Ilse'],
  ['0404', 'Brakken H2', 'BRAK-H2', 'Ferry line, handheld 3', 'update', 'stored tickets', 'Due for the newest build.', 'hand-back', 'closed', '-1 16:00', '-2 10:31', 'Tavi'],
  ['0405', 'Alder 4', 'CORV-4M', 'Edda K.', 'downgrade', 'photos', 'The new release drains it by noon.', 'intake', 'open', '0 17:30', '-2 11:20', 'Pell'],
  ['0406', 'Alder 4', 'CORV-4N', 'Osk R.', 'downgrade', 'nothing', 'Wants the earlier release back, wipe agreed.', 'intake', 'open', '0 17:00', '-2 13:02', 'Tavi'],
  ['0407', 'Fen 11', 'OSTR-11A', 'School office', 'leave-channel', 'documents', 'On the trial track, wants back to stable; the documents are saved.', 'intake', 'open', '1 09:30', '-2 14:15', 'Ilse'],
  ['0408', 'Brakken H2', 'BRAK-H2', 'Ferry line, handheld 9', 'restore', 'stored tickets', 'Dead since the cable came out in a write.', 'readings', 'waiting', null, '-1 08:50', 'Pell'],
  ['0409', 'Brakken H2', 'BRAK-H2', 'Ferry line, handheld 11', 'restore', 'stored tickets', 'It restarts over and over since a clean write elsewhere.', 'readings', 'open', '0 15:30', '-1 09:05', 'Tavi'],
  ['0410', 'Alder 5', 'CORV-5M', 'Wim D.', 'restore', 'nothing', 'Second-hand, asks for an earlier owner.', 'intake', 'declined', null, '-1 09:44', 'Ilse'],
  ['0411', 'Alder 4', 'CORV-4N', 'Hanne S.', 'update', 'photos, cards', 'Refuses its own update.', 'intake', 'open', '0 15:00', '-1 10:10', 'Tavi'],
  ['0412', 'Alder 5', 'CORV-5X', 'Pieter L.', 'variant-change', 'photos', 'Bought abroad; a friend sent a file for it.', 'intake', 'stopped', null, '-1 10:58', 'Pell'],
  ['0413', 'Alder 4', 'CORV-4M', 'Quay café', 'service', 'nothing', 'The maker sent a permit.', 'intake', 'waiting', '2 12:00', '-1 11:36', 'Ilse'],
  ['0414', 'Alder 5', 'CORV-5N', 'Rolf A.', 'update', 'add-ons, rescue', 'Keeps a rescue of his own and wants it kept.', 'intake', 'open', '1 16:00', '-1 13:20', 'Ilse'],
  ['0415', 'Fen 11', 'OSTR-11C', 'Harbour pilot', 'update', 'charts', 'Its own update stops half way.', 'intake', 'open', '0 15:00', '-1 14:02', 'Tavi'],
  ['0416', 'Alder 4', 'CORV-4N', 'Greta V.', 'restore', 'photos', 'The back stands off.', 'intake', 'stopped', null, '-1 15:48', 'Juno'],
  ['0417', 'Brakken H2K', 'BRAK-H2K', 'Ferry line, handheld 14', 'update', 'stored tickets', 'The gate asks for the newest build.', 'intake', 'open', '0 16:30', '0 08:35', 'Ilse'],
  ['0418', 'Brakken H2', 'BRAK-H2', 'Ferry line, handheld 15', 'restore', 'stored tickets', 'New housing; the label says H2K.', 'readings', 'open', '0 17:45', '0 08:52', 'Pell'],
  ['0419', 'Fen 8', 'OSTR-8B', 'Library, desk', 'restore', 'nothing', 'An update was merged half and it sits there.', 'intake', 'open', '1 10:00', '0 09:14', 'Tavi'],
  ['0420', 'Alder 5', 'CORV-5M', 'Anneke F.', 'relock', 'photos', 'All is stock again; close the lock for the sale.', 'intake', 'open', '0 16:00', '0 09:47', 'Ilse'],
  ['0421', 'Brakken H2', 'BRAK-H2', 'Ferry line, handheld 2', 'update', 'stored tickets', 'Late in the queue and low on charge.', 'ready', 'open', '0 15:50', '0 10:20', 'Tavi'],
  ['0422', 'Fen 11', 'OSTR-11A', 'Sabine O.', 'restore', 'drawings', 'Restart loop since yesterday.', 'intake', 'open', '0 16:30', '0 11:05', 'Pell'],
  ['0423', 'Alder 4', 'CORV-4N', 'Quay ticket office', 'update', 'nothing', 'Must reach the patch date of the audit.', 'intake', 'open', '0 14:45', '0 11:31', 'Ilse'],
  ['0424', 'Alder 4', 'CORV-4M', 'Leif N.', 'downgrade', 'nothing', 'The camera app of the new release fails.', 'intake', 'open', '0 17:15', '0 12:08', 'Tavi'],
]

// prettier-ignore
const NOTES: Readonly<Record<string, DemoSlip['notes']>> = {
  '0401': [['Tavi', '0 09:20', 'It comes back to the first picture four times a minute. Modem and loader may be of two builds.']],
  '0408': [['Pell', '-1 09:30', 'No screen, no hum, nothing on the link. Maker asked about a board.']],
  '0412': [['Pell', '-1 11:40', 'The file is for the other chipset. Shown to the owner, who will think about it.']],
  '0416': [['Juno', '-1 15:55', 'Cell is swollen. In the sand box, not opened. Ilse told.']],
  '0417': [
    ['Ilse', '0 08:40', 'Tickets of the morning are still on it. Nobody at the gate has a copy.'],
    ['Tavi', '0 13:10', 'Label read: H2K, tail 7F31. Takes a charge, 71 % now.'],
  ],
}

const REASONS: Readonly<Record<string, string>> = {
  '0410': 'Account lock, and the owner before cannot be reached.',
  '0412': 'What was asked for would kill it.',
  '0429': 'Swollen cell. No charging, no writing; for the battery people.',
  '0416': 'Swollen cell. No charging, no writing; for the battery people.',
}

/** The dozen of the ferry line: where each of them has come to; the last three wait for the first. */
const GATE_STAGES: readonly (readonly [Stage, SlipState])[] = [
  ['firmware', 'open'],
  ['proof', 'open'],
  ['plan', 'open'],
  ['write', 'open'],
  ['intake', 'stopped'],
  ['first-start', 'open'],
  ['hand-back', 'open'],
  ['compare', 'open'],
  ['plan', 'open'],
  ['intake', 'waiting'],
  ['intake', 'waiting'],
  ['intake', 'waiting'],
]
const GATE_HANDHELDS = GATE_STAGES.map(([stage, state], index): Row => {
  const number = String(425 + index).padStart(4, '0')
  const customer = `Ferry line, handheld ${21 + index}`
  const words = state === 'waiting' ? 'One of the dozen; waits for 0425.' : 'One of the dozen.'
  const first = index === 0 ? 'Goes first of the dozen.' : words
  /* Those that have come far were opened in the morning. */
  const hour = state === 'waiting' ? 13 : 11
  const minute = String(10 + index * 3).padStart(2, '0')
  return [
    number,
    'Brakken H2',
    'BRAK-H2',
    customer,
    'update',
    'stored tickets',
    first,
    stage,
    state,
    '1 15:00',
    `0 ${hour}:${minute}`,
    'Tavi',
  ]
})

/** All slips, in the order in which they were opened. */
export const DEMO_SLIPS: readonly DemoSlip[] = [...ROWS, ...GATE_HANDHELDS].map((row) => {
  const [number, device, model, customer, intent, promise, words, stage, state, due, opened, by] =
    row
  const reason = REASONS[number]
  return {
    number,
    device,
    model,
    customer,
    intent,
    promise,
    words,
    stage,
    state,
    due,
    opened,
    by,
    notes: NOTES[number] ?? [],
    ...(reason === undefined ? {} : { reason }),
  }
})
