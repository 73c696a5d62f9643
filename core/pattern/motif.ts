import { cellsFrom, type Cells } from '../grid/cells'
import { beadCentre, type Lattice } from '../technique/lattice'

/** Patterns to begin with. Each is a function of a bead's middle, so it lies right on any lattice. */
export const MOTIFS = [
  { id: 'plain', name: 'Plain', summary: 'One bead throughout: a clean start.' },
  { id: 'rings', name: 'Rings', summary: 'Bands across the width.' },
  { id: 'chevron', name: 'Chevron', summary: 'The same colours, shifted a place every row, turning in the middle.' },
  { id: 'diamonds', name: 'Diamonds', summary: 'A chevron that turns back; the points are single.' },
] as const

export type MotifId = (typeof MOTIFS)[number]['id']

/**
 * Bead rows of one repeat of a motif, for a work so many columns wide; a multiple of the lattice's own period, so that
 * repeats join on.
 */
function motifRows(id: MotifId, lattice: Lattice, columns: number): number {
  const rows = plainRows(id, lattice, columns)
  return Math.ceil(rows / lattice.period.rows) * lattice.period.rows
}

function plainRows(id: MotifId, lattice: Lattice, columns: number): number {
  switch (id) {
    case 'plain':
      return 8
    case 'rings':
      return 9
    default:
      return Math.max(6, 2 * Math.round((columns * lattice.pitchX) / lattice.pitchY / 2) + (columns < 8 ? 2 : 0))
  }
}

const wave = (t: number): number => 1 - Math.abs(2 * (t - Math.floor(t)) - 1)

/**
 * One repeat of a motif in the given tray numbers (ground first, then accents). The pattern is a function with the
 * period of the repeat, so it closes on itself: the row where two repeats meet is counted once.
 */
export function motifCells(id: MotifId, lattice: Lattice, columns: number, numbers: readonly number[]): Cells {
  const rows = motifRows(id, lattice, columns)
  const ground = numbers[0] ?? 1
  const accents = numbers.slice(1)
  const pick = (n: number) => accents[Math.min(accents.length - 1, Math.max(0, n))] ?? ground
  // Round a tube the last column lies beside the first, as far from it as every other from the next.
  const width = (lattice.round ? columns : columns - 1) * lattice.pitchX
  const length = rows * lattice.pitchY
  const flat: number[] = []
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const centre = beadCentre(lattice, c, r)
      const x = width === 0 ? 0 : (centre.x - lattice.originX) / width
      const y = (centre.y - lattice.originY) / length
      const fold = Math.abs(2 * x - 1)
      if (id === 'plain') flat.push(ground)
      else if (id === 'rings') flat.push(r < 2 ? pick(0) : r >= 4 && r < 5 ? pick(1) : ground)
      else if (id === 'chevron') {
        const t = y + fold / 2
        // Rounded, so that a bead on a boundary falls the same way on both halves.
        const at = (Math.round((t - Math.floor(t)) * 4e6) / 1e6) % 4
        flat.push(at < 1 ? pick(0) : at < 1.8 ? pick(1) : at < 2.3 ? pick(2) : ground)
      } else {
        const far = Math.round((fold + (1 - wave(y))) * 1e6) / 1e6
        flat.push(far < 0.32 ? pick(2) : far < 0.62 ? pick(1) : far < 0.95 ? pick(0) : ground)
      }
    }
  }
  return cellsFrom(columns, rows, flat)
}
