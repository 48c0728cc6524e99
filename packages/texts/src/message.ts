/**
 * Type-level reading of ICU messages: which parameters a sentence asks for, and of what kind, so that
 * `say('slip.count', { n: 3 })` is checked by the compiler. Plural arms hold words and `#` only; they
 * never nest another parameter (a convention that a test over the whole catalogue keeps).
 */

/** "n, plural, one {# slip" → n: number; "name" → name: text; "# slip" (an arm) → nothing. */
type ParamOf<Part extends string> = Part extends `${infer Name}, plural,${string}`
  ? { readonly [Key in Name]: number }
  : Part extends `${infer Name}, select,${string}`
    ? { readonly [Key in Name]: string }
    : Part extends `${string} ${string}` | `#${string}` | ''
      ? unknown
      : { readonly [Key in Part]: string | number }

/** All parameters of a message, as one object type. */
export type Params<Message extends string> = Message extends `${string}{${infer Part}}${infer Rest}`
  ? ParamOf<Part> & Params<Rest>
  : unknown
