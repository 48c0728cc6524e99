/** Where good technicians disagree, as two schools each. Reads nothing; gives the questions and what may be answered. */

/**
 * Questions on which there are two schools, the usual one first: which parts are written; over the cable by parts, or
 * installed by the device, where both are open; the newest build, or the one it had, for who wants it as it was; data
 * that need not survive left where they open after, or always from new; from anybody if proven, or its maker alone.
 */
export const SCHOOLS = {
  writes: ['least', 'all'],
  way: ['parts', 'install'],
  build: ['same', 'newest'],
  data: ['keep', 'new'],
  source: ['proven', 'maker'],
} as const
export type SchoolQuestion = keyof typeof SCHOOLS
export const SCHOOL_QUESTIONS = Object.keys(SCHOOLS) as readonly SchoolQuestion[]
