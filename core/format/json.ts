/** What JSON can hold. */
export type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json }

/** JSON has no infinities: they are texts. */
export function numeral(x: number): number | string {
  return Number.isFinite(x) ? x : Number.isNaN(x) ? 'NaN' : x > 0 ? 'Infinity' : '-Infinity'
}
