import { columnOfKey, keyOf } from '../../grid/key'
import { z } from 'zod'
import type { SettingField, Settings, WorkingRow } from '../technique'
import type { Stitch } from '../stitch'

/** Settings that several stitches share, each with the field that shows it. */
export const startSide = z.enum(['left', 'right']).default('left').describe('The edge from which odd rows run')

export const startField = (label: string, help: string): SettingField => ({
  key: 'start',
  label,
  help,
  kind: 'choice',
  choices: [
    { value: 'left', label: 'left' },
    { value: 'right', label: 'right' },
  ],
})

/**
 * Reads a part's settings through the stitch's schema, once for each settings object: rows and lattices ask very
 * often.
 */
export function reader<T>(schema: z.ZodType<T>): (settings: Settings) => T {
  const known = new WeakMap<Settings, T>()
  return (settings) => {
    let read = known.get(settings)
    if (read === undefined) {
      read = schema.parse(settings)
      known.set(settings, read)
    }
    return read
  }
}

/** Keys of `count` cells of one row: the first column, then every `stride`-th. */
function keysAcross(columns: number, r: number, first: number, stride: number, count: number): Int32Array {
  const keys = new Int32Array(count)
  for (let k = 0, key = keyOf(columns, first, r); k < count; k++, key += stride) keys[k] = key
  return keys
}

/**
 * A working row whose beads follow each other evenly within bead row r, beginning at column `first`. Its keys are made
 * only when asked for: long lists of words never ask. `mirrored`: counted from the other edge.
 */
export function evenRow(
  { from, to }: Pick<WorkingRow, 'from' | 'to'>,
  direction: WorkingRow['direction'],
  columns: number,
  r: number,
  first: number,
  stride: number,
  count: number,
  mirrored = false,
  after?: WorkingRow['after'],
): WorkingRow {
  const at = mirrored ? columns - 1 - first : first
  const step = mirrored ? -stride : stride
  let keys: Int32Array | undefined
  const row = {
    from,
    to,
    direction,
    even: { from: keyOf(columns, at, r), stride: step, count },
    get keys() {
      return (keys ??= keysAcross(columns, r, at, step, count))
    },
  }
  return after
    ? Object.defineProperties({ after } as unknown as WorkingRow, Object.getOwnPropertyDescriptors(row))
    : row
}

/** A whole row of cells from one edge to the other. */
export const wholeRow = (
  numbers: Pick<WorkingRow, 'from' | 'to'>,
  right: boolean,
  columns: number,
  r: number,
  after?: WorkingRow['after'],
): WorkingRow =>
  evenRow(numbers, right ? '→' : '←', columns, r, right ? 0 : columns - 1, right ? 1 : -1, columns, false, after)

/** Mirrors keys across the width. */
export function mirroredKeys(columns: number, keys: Int32Array): Int32Array {
  for (let k = 0; k < keys.length; k++) {
    const key = keys[k]!
    const c = columnOfKey(columns, key)
    keys[k] = key - c + (columns - 1 - c)
  }
  return keys
}

/** Order of stitches whose every bead row is one working row. */
export const ROW_BY_ROW: Pick<Stitch, 'workingRows' | 'workingRowOf' | 'rowBefore' | 'countedRows'> = {
  workingRows: ({ rows }) => rows,
  workingRowOf: ({ r }) => r,
  rowBefore: (i) => i - 1,
  countedRows: (rows) => rows,
}

/** Row i worked to and fro: odd rows run from the starting edge, even ones back. */
export const toAndFro = (i: number, columns: number, start: 'left' | 'right'): WorkingRow =>
  wholeRow({ from: i + 1, to: i + 1 }, (i % 2 === 0) === (start === 'left'), columns, i)
