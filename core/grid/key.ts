/**
 * A cell of a grid as one number, its key: cells are counted row after row. Only here is it said how a key is made and
 * what it says.
 */
export const keyOf = (columns: number, c: number, r: number): number => r * columns + c

export const columnOfKey = (columns: number, key: number): number => key % columns

export const rowOfKey = (columns: number, key: number): number => Math.floor(key / columns)

/** Column and row of a key. */
export const placeOfKey = (columns: number, key: number): { readonly c: number; readonly r: number } => ({
  c: key % columns,
  r: Math.floor(key / columns),
})
