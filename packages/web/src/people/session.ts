/** Who is at this browser, as the whole page shares it. */
import type { Face } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { call } from '../server/call.ts'
import { online } from '../server/online.ts'

export const useSessionStore = defineStore('session', () => {
  const client = useQueryClient()
  const person = shallowRef<Face | null>(null)
  const known = ref(false)

  /** Asks the server who is signed in. */
  async function ask(): Promise<void> {
    const answer = await call('sessionShow')
    person.value = answer.person
    known.value = true
  }

  /** Somebody signed in: what was fetched for somebody else is forgotten. */
  function begun(who: Face): void {
    person.value = who
    known.value = true
    client.removeQueries()
  }

  /** Signs off, here and at the server. */
  async function end(): Promise<void> {
    await call('sessionEnd')
    ended()
  }

  /** The session is over, whoever ended it. */
  function ended(): void {
    person.value = null
    client.removeQueries()
  }
  return { person, known, online, ask, begun, end, ended }
})
