/** People of the demo at the shell: signed in by their PIN, as anybody there is. */
import type { Sender } from './packages/shelve.ts'
import type { DemoName } from './people.ts'
import { DEMO_PEOPLE } from './people.ts'

/** The header by which a request is this person's. Throws with the server's sentence where it will not have them. */
export async function demoPersonAt(
  address: string,
  secret: string,
  name: DemoName,
): Promise<Readonly<Record<string, string>>> {
  const person = DEMO_PEOPLE.find((one) => one.name.startsWith(name))
  const answer = await fetch(new URL('/api/session/shell', address), {
    method: 'POST',
    headers: { authorization: `Bearer ${secret}`, 'content-type': 'application/json' },
    body: JSON.stringify({ person: person?.id, pin: person?.pin }),
  })
  const { token, sentence, remedy } = (await answer.json()) as Record<string, string>
  if (token === undefined) throw new Error(`${sentence ?? ''} ${remedy ?? ''}`)
  return { authorization: `Bearer ${token}` }
}

/** The same, of whom a shelf asks: read under the secret, and signed in where something is sent. */
export function demoSenderAt(address: string, secret: string, name: DemoName): Sender {
  let by: Promise<Readonly<Record<string, string>>> | undefined
  return {
    reads: { authorization: `Bearer ${secret}` },
    sends: () => (by ??= demoPersonAt(address, secret, name)),
  }
}
