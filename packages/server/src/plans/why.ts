/** Why a run stopped, or a rehearsal would, as a page is told. */
import type { RunShown } from '@plain-slate/api'
import type { StopReason } from '@plain-slate/core'

/** Digits of an image's digest by which people know it. */
const IMAGE_DIGITS = 8

/** Why it stopped, as a code with the facts of its sentence. */
export function whyOf(why: StopReason): NonNullable<RunShown['why']> {
  switch (why.kind) {
    case 'wrong-device':
      return { code: why.kind, facts: { serial: why.serial } }
    case 'refused':
      return { code: why.kind, facts: { code: why.code } }
    case 'not-equal':
      return { code: why.kind, facts: { partition: why.partition } }
    case 'not-as-promised': {
      const { build, loaderVersion, floor, outcome } = why.facts
      return {
        code: why.kind,
        facts: { build: build ?? '', loader: loaderVersion ?? '', floor: floor ?? '', outcome },
      }
    }
    case 'other-id': {
      const { fact, here, planned } = why
      return { code: why.kind, facts: { fact, here, planned } }
    }
    case 'bytes':
      return { code: why.kind, facts: { image: why.image.slice(0, IMAGE_DIGITS), what: why.what } }
    case 'waits':
      return { code: why.kind, facts: {} }
    case 'other-table': {
      const differ = (why.differ ?? []).map(({ partition, how }) => `${how} ${partition}`)
      return { code: why.kind, facts: { differ: differ.join('\n') } }
    }
    case 'undecided':
      return { code: why.kind, facts: { what: why.what } }
    case 'not-wiped':
      return { code: why.kind, facts: { items: why.items } }
    case 'journal':
      return { code: why.kind, facts: { entry: why.entry } }
    case 'fault':
      return { code: why.kind, facts: { what: why.what } }
    case 'asked':
    case 'superseded':
      return { code: why.kind, facts: {} }
  }
}
