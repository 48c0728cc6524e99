/** It is the device that this slip is about: it answers by the serial number by which it did before. */
import { rule } from '../rule.ts'

export const sameDevice = rule({
  id: 'identity.same',
  overruled: 'nobody',
  needs: ['serial'],
  reads: ['history'],
  says: { same: ['fits', 'here'], other: ['does-not-fit', 'here', 'before'] },
  concerns: ({ history }) => history.serials.length > 0,
  check: ({ serial }, { history }) => {
    const other = history.serials.find((one) => one !== serial)
    return other === undefined
      ? { say: 'same', facts: { here: serial } }
      : { say: 'other', facts: { here: serial, before: other } }
  },
})
