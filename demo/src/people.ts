/** The people of the demo shop, with the PINs that the start command prints. */
import type { Role } from '@plain-slate/core'

export type DemoPerson = {
  readonly id: string
  readonly name: string
  readonly role: Role
  readonly pin: string
}

export const DEMO_PEOPLE: readonly DemoPerson[] = [
  { id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0001', name: 'Ilse Maro', role: 'lead', pin: '2204' },
  {
    id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0002',
    name: 'Tavi Renn',
    role: 'technician',
    pin: '3815',
  },
  {
    id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0003',
    name: 'Pell Ondry',
    role: 'technician',
    pin: '6092',
  },
  { id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0004', name: 'Juno Aske', role: 'trainee', pin: '7450' },
]

export type DemoName = 'Ilse' | 'Tavi' | 'Pell' | 'Juno'

/** The id of somebody by their first name. */
export function idOf(name: DemoName): string {
  const person = DEMO_PEOPLE.find((one) => one.name.startsWith(name))
  if (person === undefined) throw new Error(`nobody called ${name} works here`)
  return person.id
}
