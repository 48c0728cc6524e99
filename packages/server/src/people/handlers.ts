/** Handlers of people and sessions. */
import type { Contract } from '@plain-slate/api'
import { ok, refuse } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import { someone } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import { listPeople } from '../tables/people.ts'
import { addPerson, changePerson } from './change.ts'
import { faceOf, personOf } from './face.ts'
import { found } from './found.ts'
import { beginSession, endSession } from './session.ts'
import { signIn, signOff } from './sign-in.ts'
import { endToken, makeToken, signInAtShell, tokensFor } from './tokens.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function peopleHandlers(workshop: Workshop) {
  const faces: Of<'faces'> = async () => {
    const people = await listPeople(workshop.db)
    return ok(people.filter((person) => person.active).map(faceOf))
  }
  const sessionShow: Of<'sessionShow'> = ({ actor }) =>
    Promise.resolve(ok({ person: actor ?? null }))

  const sessionBegin: Of<'sessionBegin'> = async ({ body, actor, req }) => {
    const result = await signIn(workshop, body.person, body.pin, actor)
    if (!result.ok) return result
    await beginSession(req, result.value.id)
    return ok({ person: result.value })
  }
  const sessionEnd: Of<'sessionEnd'> = async ({ actor, req }) => {
    if (actor !== undefined) await signOff(workshop, actor)
    await endSession(req)
    return ok({ person: null })
  }
  const firstLead: Of<'firstLead'> = async ({ body, req }) => {
    const lead = await found(workshop, body)
    if (lead === undefined) return refuse({ code: 'shop.founded' })
    await beginSession(req, lead.id)
    return ok({ person: lead })
  }
  const people: Of<'people'> = async () => ok((await listPeople(workshop.db)).map(personOf))
  const personAdd: Of<'personAdd'> = ({ body, actor }) => addPerson(workshop, body, actor)
  const personChange: Of<'personChange'> = ({ params, body, actor }) =>
    changePerson(workshop, params.id, body, actor)

  const sessionShell: Of<'sessionShell'> = ({ body }) => signInAtShell(workshop, body)
  const tokens: Of<'tokens'> = async (call) => ok(await tokensFor(workshop.db, someone(call)))
  const tokenMake: Of<'tokenMake'> = (call) => makeToken(workshop, call.body, someone(call))
  const tokenStrike: Of<'tokenStrike'> = (call) => endToken(workshop, call.params.id, someone(call))

  return {
    faces,
    sessionShow,
    sessionBegin,
    sessionEnd,
    firstLead,
    people,
    personAdd,
    personChange,
    sessionShell,
    tokens,
    tokenMake,
    tokenStrike,
  }
}
