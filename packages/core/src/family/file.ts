/**
 * A family's file as it is read: the shape of a profile, and that its parts refer to each other as they must. It stands
 * apart from the questions to a profile, so that a page that asks some loads no schema.
 */
import { brokenRefs } from './refs.ts'
import { unsoundIn } from './sound.ts'
import { profileSchema } from './schema.ts'

/** A profile whose parts refer to each other as they must, and that can be true of a device. */
export const familySchema = profileSchema.superRefine((family, context) => {
  for (const { path, message } of [...brokenRefs(family), ...unsoundIn(family)])
    context.addIssue({ code: 'custom', path: [...path], message })
})
