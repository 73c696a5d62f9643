import type { Finish } from '../bead/bead'
import { DEFAULT_CORD, DEFAULT_SPEC, isCord, requireSpec } from '../bead/spec'

/** What the cells of a technique are made of, and what follows from that: asked in place of which technique it is. */
export interface Material {
  /** The size that work begins with where none is wished for. */
  readonly usualSpec: string
  /** Whether a size of the tray can be worked so. */
  takes(spec: string): boolean
  /** Whether cells are counted and weighed one by one; else they are what shows of something that runs through. */
  readonly counted: boolean
  /** Whether a column keeps its colour from end to end, so that no row can be laid otherwise than the one before. */
  readonly through: boolean
  /** How a first one on the tray is called and looks. */
  readonly first: { readonly name: string; readonly finish: Finish }
  /** What becomes of a pattern that was made of something else, in a sentence. */
  readonly arrival: string
}

/** Beads: where a stitch says nothing else. */
export const BEADS: Material = {
  usualSpec: DEFAULT_SPEC,
  takes: (spec) => !isCord(requireSpec(spec)),
  counted: true,
  through: false,
  first: { name: 'Bead', finish: 'opaque' },
  arrival: 'Cords become beads: every row begins alike.',
}

/** Plain cords: a cell is a crossing, and a strand keeps its colour from end to end. */
export const CORDS: Material = {
  usualSpec: DEFAULT_CORD,
  takes: (spec) => isCord(requireSpec(spec)),
  counted: false,
  through: true,
  first: { name: 'Cord', finish: 'matte' },
  arrival:
    'Cords keep one colour from end to end: each strand takes the colour of its first bead, and the beads ' +
    'of the tray become cords.',
}
