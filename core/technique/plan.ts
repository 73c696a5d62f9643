/** What the lines of a part mean, as its technique has it: plain JSON. */
export type Plan = Readonly<Record<string, Json>>
export type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json }
