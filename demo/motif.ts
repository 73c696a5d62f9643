import { cellsFrom, type Cells } from '../core/grid/cells'
import { beadCentre, type Lattice } from '../core/technique/lattice'

/**
 * Which tray number lies at a place: x across and y along, both in mm from the first bead, in a repeat `length` mm
 * long.
 */
export type Design = (x: number, y: number, size: { readonly width: number; readonly length: number }) => number

/** One section of a design, sampled at the middle of every bead: it lies right on any lattice and closes on itself. */
export function sampled(lattice: Lattice, columns: number, rows: number, design: Design): Cells {
  const size = { width: (columns - 1) * lattice.pitchX, length: rows * lattice.pitchY }
  const flat: number[] = []
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const { x, y } = beadCentre(lattice, c, r)
      flat.push(design(x - lattice.originX, y - lattice.originY, size))
    }
  }
  return cellsFrom(columns, rows, flat)
}

/** Distance of t from the nearest whole number, 0 … ½. */
export const fold = (t: number): number => Math.abs(t - Math.round(t))
