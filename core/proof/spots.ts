import { keyOf } from '../grid/key'
import { lineAt, lineLength } from '../grid/lines'
import { columnsOf, locateRow, sectionStart, SECTIONS, type Part, type SectionName } from '../piece/piece'
import type { Place } from '../technique/lattice'
import type { Spot } from './found'

/** The bead at a place of the whole part, as it is kept. */
export function spotAt(part: Part, { c, r }: Place): Spot {
  const { section, row } = locateRow(part, r)
  return { section, r: row, c }
}

/** A whole line of the part, as it is kept. */
export const lineSpot = (part: Part, r: number): Spot => ({ ...spotAt(part, { c: 0, r }), c: null })

/** Where a spot lies in the whole part, in the first copy of the repeat; of a whole line its first bead. */
export const placeOfSpot = (part: Part, { section, r, c }: Spot): Place => ({
  c: c ?? 0,
  r: sectionStart(part, section) + r,
})

/** Lines that are kept, each once: those of the start, of one repeat where it is worked, and of the end. */
export function keptLines(
  part: Part,
): { readonly section: SectionName; readonly r: number; readonly whole: number }[] {
  return SECTIONS.flatMap((section) =>
    section === 'repeat' && part.times === 0
      ? []
      : Array.from({ length: part[section].rows }, (_, r) => ({ section, r, whole: sectionStart(part, section) + r })),
  )
}

/** Keys of the beads that spots name, in the first copy of the repeat. */
export const keysOfSpots = (part: Part, spots: readonly Spot[]): number[] =>
  spots.flatMap((spot) => {
    const { c, r } = placeOfSpot(part, spot)
    const columns = columnsOf(part)
    if (spot.c !== null) return [keyOf(columns, c, r)]
    return Array.from({ length: lineLength(part[spot.section], spot.r) }, (_, k) => keyOf(columns, k, r))
  })

const beadsAt = (part: Part, { section, r, c }: Spot): string => {
  if (r >= part[section].rows) return '-'
  const line = lineAt(part[section], r)
  return c === null ? line.join() : String(line[c] ?? '-')
}

/** A short number of a text, the same on every machine (FNV-1a, 32 bits). */
export function signOf(text: string): string {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  return (hash >>> 0).toString(16).padStart(8, '0')
}

/** What lies at some spots, wherever they have moved to: it changes when a bead there does. */
export const contentOf = (part: Part, spots: readonly Spot[]): string =>
  spots.map((spot) => `${spot.c ?? '*'}:${beadsAt(part, spot)}`).join(' ')
