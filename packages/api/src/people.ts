/** People and sessions: who is at the bench, and how they say so. */
import { ROLES, leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { oneLine } from './line.ts'
import { route } from './route.ts'

/** Four to eight digits: typed at arm's length, slowed after failures. */
export const pinSchema = z.string().regex(/^[0-9]{4,8}$/, 'four to eight digits')
export const personIdSchema = z.uuid()
export const roleSchema = z.enum(ROLES)
export const nameSchema = oneLine(60).min(2)

/** What anybody may see of the people, so that they can sign in. */
export const faceSchema = z.object({
  id: personIdSchema,
  name: z.string(),
  initials: z.string(),
  role: roleSchema,
})
export type Face = z.infer<typeof faceSchema>

export const personSchema = faceSchema.extend({
  active: z.boolean(),
  addedAt: z.iso.datetime({ precision: 3 }),
})
export type Person = z.infer<typeof personSchema>

const sessionSchema = z.object({ person: faceSchema.nullable() })

/** A token by which a person acts at the shell; what it reads is shown once, as it is made. */
export const tokenSchema = z.object({
  id: z.uuid(),
  person: faceSchema,
  name: z.string(),
  madeAt: z.iso.datetime({ precision: 3 }),
  endsAt: z.iso.datetime({ precision: 3 }),
})
export type Token = z.infer<typeof tokenSchema>
const byId = z.object({ id: personIdSchema })

export const peopleRoutes = {
  faces: route({
    method: 'get',
    path: '/api/faces',
    needs: 'nobody',
    summary: 'Who can sign in here',
    answer: z.array(faceSchema),
  }),
  sessionShow: route({
    method: 'get',
    path: '/api/session',
    needs: 'nobody',
    summary: 'Who is signed in on this browser',
    answer: sessionSchema,
  }),
  sessionBegin: route({
    method: 'post',
    path: '/api/session',
    needs: 'nobody',
    summary: 'Sign in, or hand the bench to somebody else',
    body: z.object({ person: personIdSchema, pin: pinSchema }),
    answer: sessionSchema,
  }),
  sessionEnd: route({
    method: 'delete',
    path: '/api/session',
    needs: 'trainee',
    summary: 'Sign off',
    answer: sessionSchema,
  }),
  sessionShell: route({
    method: 'post',
    path: '/api/session/shell',
    needs: 'agent',
    secret: true,
    summary: 'Act at the shell as a person, by their PIN, for a working day',
    body: z.object({ person: personIdSchema, pin: pinSchema }),
    answer: z.object({ token: z.string(), person: faceSchema }),
  }),
  tokens: route({
    method: 'get',
    path: '/api/people/tokens',
    needs: leastOf('token.make'),
    summary: 'Tokens for the shell: your own; a lead sees everybody’s',
    answer: z.array(tokenSchema),
  }),
  tokenMake: route({
    method: 'post',
    path: '/api/people/tokens',
    needs: leastOf('token.make'),
    summary: 'Make a token for the shell under your name; it is shown once',
    body: z.object({ name: nameSchema, pin: pinSchema }),
    answer: z.object({ token: z.string(), made: tokenSchema }),
  }),
  tokenStrike: route({
    method: 'post',
    path: '/api/people/tokens/{id}/strike',
    needs: leastOf('token.make'),
    summary: 'End a token: your own, or as a lead anybody’s',
    params: byId,
    answer: z.array(tokenSchema),
  }),
  firstLead: route({
    method: 'post',
    path: '/api/first-lead',
    needs: 'nobody',
    summary: 'Found an empty shop: its first lead',
    body: z.object({ name: nameSchema, pin: pinSchema, shop: nameSchema, place: nameSchema }),
    answer: sessionSchema,
  }),
  people: route({
    method: 'get',
    path: '/api/people',
    needs: leastOf('person.read'),
    summary: 'Everybody, also those who have left',
    answer: z.array(personSchema),
  }),
  personAdd: route({
    method: 'post',
    path: '/api/people',
    needs: leastOf('person.change'),
    summary: 'Add somebody',
    body: z.object({ name: nameSchema, role: roleSchema, pin: pinSchema }),
    answer: personSchema,
  }),
  personChange: route({
    method: 'patch',
    path: '/api/people/{id}',
    needs: leastOf('person.change'),
    summary: 'Change a role or a PIN, or let somebody go or come back',
    params: byId,
    body: z.object({
      role: z.exactOptional(roleSchema),
      pin: z.exactOptional(pinSchema),
      active: z.exactOptional(z.boolean()),
    }),
    answer: personSchema,
  }),
}
