/**
 * An expected refusal is a value, not an exception. Reads nothing, gives a two-armed union that
 * the compiler makes callers look at. Exceptions are left for bugs and broken I/O.
 */
export type Result<Value, Refusal> =
  { readonly ok: true; readonly value: Value } | { readonly ok: false; readonly refusal: Refusal }

/** The good arm. */
export function ok<Value>(value: Value): { readonly ok: true; readonly value: Value } {
  return { ok: true, value }
}

/** The refused arm; `refusal` carries a code and the facts its sentence needs. */
export function refuse<Refusal>(refusal: Refusal): {
  readonly ok: false
  readonly refusal: Refusal
} {
  return { ok: false, refusal }
}
