import { cellsFrom, emptyCells } from '../core/grid/cells'
import type { Part, Piece } from '../core/piece/piece'
import { requireTechnique } from '../core/technique/registry'
import { fold, type Design } from './motif'
import { pieceOf } from './plan'

/** Further stitches of the demo workshop. */
const TAU = Math.PI * 2

const hills: Design = (x, y, { width, length }) => {
  const h = x / width + 0.16 * Math.sin((TAU * y) / length) + 0.08 * Math.sin((TAU * 3 * y) / length)
  return h < 0.3 ? 1 : h < 0.44 ? 2 : h < 0.62 ? 3 : h < 0.8 ? 4 : 5
}

const rungs: Design = (_, y, { length }) => (fold(y / length) < 0.16 ? 2 : fold((y / length) * 3) < 0.12 ? 3 : 1)

/** Squares of four beads; every second one a flower. */
const trellis: Design = (x, y, { width, length }) => {
  const u = (x / width) * 6
  const v = (y / length) * 6
  const edge = x < 1 || x > width - 1
  if (edge) return 2
  return fold(u) + fold(v) < 0.42 && (Math.round(u) + Math.round(v)) % 2 === 0 ? 3 : fold((u + v) / 3) < 0.14 ? 4 : 1
}

/** A small square tab, sewn to the end of a band. */
const tab: Part = {
  id: 'tab',
  name: 'Tab',
  technique: 'square',
  settings: requireTechnique('square').settings.parse({}),
  spec: 'cube-3-mm',
  times: 1,
  on: null,
  start: emptyCells(4, 0),
  repeat: cellsFrom(4, 4, [1, 1, 1, 1, 1, 2, 2, 1, 1, 2, 2, 1, 0, 3, 3, 0]),
  end: emptyCells(4, 0),
}

export const STITCH_PIECES: readonly Piece[] = [
  pieceOf({
    name: 'Gable ends',
    wearer: '',
    bodyMm: 163,
    easeMm: 13,
    closure: 'button',
    technique: 'brick',
    spec: 'cylinder-11',
    columns: 14,
    repeatRows: 16,
    endRows: 6,
    notes: 'Both ends taper: one bead less a side until the loop fits.',
    tray: [
      ['Linen', '#ded3bd', 'opaque'],
      ['Slate roof', '#4c5563', 'matte'],
      ['Door red', '#a3333a', 'opaque'],
      ['Brass', '#b58a33', 'metallic'],
      ['Evening', '#33405e', 'lustre'],
    ],
    design: hills,
    // Half a bead comes off each side with every row toward the outer edge.
    end: (c, r) => {
      const off = Math.floor((5 - r) / 2)
      return c < off || c > 13 - off - (r % 2 === 1 ? 1 : 0) ? 0 : 5
    },
  }),
  pieceOf(
    {
      name: 'Rung by rung',
      wearer: 'beginners',
      bodyMm: 160,
      easeMm: 13,
      closure: 'toggle',
      technique: 'ladder',
      spec: 'cube-3-mm',
      columns: 2,
      repeatRows: 12,
      endRows: 2,
      notes: 'A first evening’s work.',
      tray: [
        ['Oat', '#d9c9a8', 'matte'],
        ['Thistle', '#7c5a8a', 'opaque'],
        ['Moss', '#6b7d3c', 'lustre'],
      ],
      design: rungs,
    },
    [tab],
  ),
  pieceOf({
    name: 'Garden trellis',
    wearer: 'order 21',
    bodyMm: 168,
    easeMm: 13,
    closure: 'toggle',
    technique: 'right-angle',
    spec: 'round-11',
    columns: 13,
    repeatRows: 9,
    endRows: 1,
    notes: 'Six squares across. Pull each square snug before going on.',
    tray: [
      ['White wash', '#e6e1d6', 'lustre'],
      ['Iron', '#4a4a52', 'metallic'],
      ['Clematis', '#6a4a9c', 'opaque'],
      ['Young leaf', '#88a84e', 'transparent'],
    ],
    design: trellis,
  }),
]
