/** What the rules say of rows: region and carrier, radio, calls, updates, network lock. */
import type { Case } from '../match/rule.ts'
import { case0417 } from './cases.ts'
import { newest } from './packages.ts'
import {
  aimed,
  of,
  ofExport,
  ofMainland,
  open,
  phone,
  said,
  sold,
  variantPart,
  wants,
} from './judged.ts'

export const ROWS_SAID: readonly (readonly [rule: string, say: string, at: Case])[] = [
  ['identity.region', 'fits', case0417()],
  ['identity.region', 'not', aimed({ region: 'EX' })],
  ['identity.region', 'moves', said({ 'use.region': 'ML' }, phone(ofMainland, wants))],
  ['promise.calls', 'uncertified', ofExport],
  ['identity.carrier', 'fits', phone(sold)],
  ['identity.carrier', 'not', phone(open)],
  ['identity.carrier', 'adopts', phone(variantPart, wants)],
  ['identity.carrier', 'anew', phone(open, { ...wants, keepData: false })],
  ['promise.radio-law', 'fits', case0417()],
  ['promise.radio-law', 'unlawful', aimed({ region: 'ML' })],
  [
    'promise.radio-law',
    'unnamed',
    of({ targets: newest.targets.map(({ region: _, ...one }) => one) }),
  ],
  ['promise.updates', 'come', phone(open, wants)],
  ['promise.updates', 'none', phone(variantPart, wants)],
  ['promise.network', 'stays', phone(variantPart, wants)],
]
