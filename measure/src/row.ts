/** One figure beside its limit. */
export type Row = { readonly what: string; readonly measured: string; readonly limit: string }
