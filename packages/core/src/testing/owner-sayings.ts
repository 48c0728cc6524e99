/** What the rules say of an owner, of whoever manages a device, and of the account on it. */
import { identify } from '../device/identity.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Case } from '../match/rule.ts'
import { reading } from './devices.ts'
import { alder } from './families.ts'
import { phone, said, sold } from './judged.ts'

export const OWNER_SAID: readonly (readonly [rule: string, say: string, at: Case])[] = [
  ['owner.managed', 'agreed', said({ 'owner.managed': 'agreed' })],
  ['owner.managed', 'none', said({ 'owner.managed': 'not-managed' })],
  ['owner.managed', 'asked', said({})],
  ['owner.managed', 'not', said({ 'owner.managed': 'not-agreed' })],
  [
    'owner.account',
    'absent',
    said({ 'owner.account': 'absent' }, phone(sold, { keepData: false })),
  ],
  [
    'owner.account',
    'absent',
    {
      ...said(
        { 'owner.account': 'owner-able', 'ready.accounts': 'done' },
        phone(sold, { keepData: false }),
      ),
      house: { ...USUAL_HOUSE, accounts: 'before' },
    },
  ],
  [
    'owner.account',
    'able',
    said({ 'owner.account': 'owner-able' }, phone(sold, { keepData: false })),
  ],
  [
    'owner.account',
    'remove',
    {
      ...said({ 'owner.account': 'owner-able' }, phone(sold, { keepData: false })),
      house: { ...USUAL_HOUSE, accounts: 'before' },
    },
  ],
  [
    'owner.account',
    'asked',
    { ...said({}, phone(sold, { keepData: false })), identity: identify(alder, []) },
  ],
  [
    'owner.account',
    'read',
    {
      ...said({ 'owner.account': 'absent' }, phone(sold, { keepData: false })),
      identity: identify(alder, [reading('accountLock', 'present', 'settings', 2000)]),
    },
  ],
  ['owner.account', 'shut', said({ 'owner.account': 'nobody' }, phone(sold, { keepData: false }))],
]
