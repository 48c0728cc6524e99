/** A maker's permit, put down by its file. */
import { PERMIT_CHARS_MAX, leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { jobSchema } from './job-shapes.ts'
import { route } from './route.ts'
import { slipNumberSchema } from './slips.ts'

export const permitRoutes = {
  jobPermit: route({
    method: 'post',
    path: '/api/slips/{number}/permit',
    needs: leastOf('slip.line'),
    summary: 'Put down its maker’s permit by its signed file',
    params: z.object({ number: slipNumberSchema }),
    body: z.object({ text: z.string().min(1).max(PERMIT_CHARS_MAX) }),
    answer: jobSchema,
  }),
}
