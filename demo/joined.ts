import { requireLattice } from '#core/technique/stitch'
import { cellsFrom, emptyCells } from '../core/grid/cells'
import { requireSpec } from '../core/bead/spec'
import { extentOf } from '../core/fit/extent'
import type { Part, Piece } from '../core/piece/piece'
import type { Joint } from '../core/piece/schema'
import { requireTechnique } from '../core/technique/registry'
import { fold, sampled, type Design } from './motif'
import { pieceOf } from './plan'

/** Pieces of several parts that hang together: one under the other, along an edge, end to end. */
interface Hung {
  readonly id: string
  readonly name: string
  readonly technique: string
  readonly spec: string
  readonly columns: number
  readonly rows: number
  readonly on: Joint
  /** How often all rows are worked; once if left out. */
  readonly times?: number
  /** Rows behind the last repeat. */
  readonly ends?: number
  readonly number: (c: number, r: number) => number
}

const hung = ({ technique, columns, rows, number, times = 1, ends = 0, ...part }: Hung): Part => ({
  ...part,
  technique,
  settings: requireTechnique(technique).settings.parse({}),
  times,
  start: emptyCells(columns, 0),
  repeat: cellsFrom(
    columns,
    rows,
    Array.from({ length: columns * rows }, (_, key) => number(key % columns, Math.floor(key / columns))),
  ),
  end: cellsFrom(
    columns,
    ends,
    Array.from({ length: columns * ends }, (_, key) => number(key % columns, rows + Math.floor(key / columns))),
  ),
})

/** A triangle of brick stitch: half a bead less on each side with every row. */
const TRIANGLE = 10
const triangle = hung({
  id: 'gable',
  name: 'Gable',
  technique: 'brick',
  spec: 'cylinder-11',
  columns: TRIANGLE,
  rows: TRIANGLE - 1,
  on: { part: 'band', at: 'start', by: 'end', holes: [], link: { kind: 'ring', mm: 3 } },
  number: (c, r) => {
    const off = Math.floor(r / 2)
    const last = TRIANGLE - 1 - off - (r % 2)
    if (c < off || c > last) return 0
    return c === off || c === last || r === 0 ? 3 : (c + Math.floor(r / 2)) % 3 === 1 ? 2 : 1
  },
})
const window: Design = (x, y, { width, length }) => {
  const u = Math.abs(x - width / 2) / (width / 2)
  const v = Math.abs((2 * y) / length - 1)
  if (Math.max(u, v) > 0.82) return 3
  if (Math.min(u, v) < 0.12) return 4
  return Math.max(u, v) < 0.42 ? 2 : 1
}

const waves: Design = (x, y, { width, length }) => {
  const crest = width / 2 + width * 0.32 * Math.sin((Math.PI * 2 * y) / length)
  const far = x - crest
  return Math.abs(far) < 0.9 ? 4 : far < 0 ? (fold(y / 9 + x / 14) < 0.07 ? 4 : 1) : fold((x + y) / 7) < 0.16 ? 3 : 2
}

const knots: Design = (x, y, { width, length }) => {
  const turn = (Math.PI * 2 * y) / length
  const [a, b] = [Math.sin(turn), Math.sin(turn + Math.PI)].map((s) => width / 2 + width * 0.3 * s)
  const [far, other] = [Math.abs(x - a!), Math.abs(x - b!)]
  if (Math.min(x, width - x) < 0.9) return 4
  return far < 1.3 && (other >= 1.3 || fold(y / length + 0.25) < 0.25) ? 2 : other < 1.3 ? 3 : 1
}

const quay = pieceOf({
  name: 'Quay with foam',
  wearer: 'order 27',
  bodyMm: 170,
  easeMm: 13,
  closure: 'slide',
  technique: 'loom',
  spec: 'cylinder-11',
  columns: 13,
  repeatRows: 30,
  endRows: 3,
  notes: 'Weave the band first; the edging is worked along its last warp, a square to every two rows.',
  tray: [
    ['Deep water', '#1f4a63', 'lustre'],
    ['Shallows', '#4f97a0', 'transparent'],
    ['Sea glass', '#9cc7b4', 'matte'],
    ['Foam', '#f1ede2', 'lustre'],
  ],
  design: waves,
})
/** Squares of right-angle weave along one edge, as many as the band is long. */
const edging = (band: Piece): Part => {
  const part = (squares: number) =>
    hung({
      id: 'foam',
      name: 'Foam',
      technique: 'right-angle',
      spec: 'cylinder-11',
      columns: 3,
      rows: 2,
      times: squares,
      ends: 1,
      on: { part: 'band', at: 'right', by: 'left', holes: [], link: null },
      number: (c, r) => (c === 1 && r % 2 === 0 ? 4 : 3),
    })
  const mm = extentOf(band, band.parts[0]!).lengthMm.nominal
  const technique = requireTechnique('right-angle')
  const work = { columns: 3, bead: requireSpec('cylinder-11'), settings: technique.settings.parse({}) }
  return part(Math.floor((technique.growth.rowsFor(mm, work) - 1) / 2))
}

/** The second half of a bracelet whose halves meet at two rings. */
const mooring = (): Part => {
  const technique = requireTechnique('peyote')
  const settings = technique.settings.parse({})
  const lattice = requireLattice(technique, { bead: requireSpec('cylinder-11'), settings, columns: 12 })
  const rows = 52
  return {
    id: 'shore',
    name: 'Shore half',
    technique: 'peyote',
    settings,
    spec: 'cylinder-11',
    times: 1,
    on: { part: 'band', at: 'end', by: 'start', holes: [3, 10], link: { kind: 'ring', mm: 5 } },
    start: emptyCells(12, 0),
    repeat: sampled(lattice, 12, rows, (x, y, { width }) => knots(x, y, { width, length: rows * lattice.pitchY })),
    end: emptyCells(12, 0),
  }
}

export const JOINED_PIECES: readonly Piece[] = [
  pieceOf(
    {
      name: 'Gatehouse drops',
      kind: 'earrings',
      wearer: 'the fair',
      bodyMm: 38,
      easeMm: 0,
      closure: 'ear-wire',
      technique: 'peyote',
      spec: 'cylinder-11',
      columns: 12,
      repeatRows: 13,
      endRows: 0,
      notes: 'A ring through the lowest row of the square carries the gable, point up.',
      tray: [
        ['Plaster', '#e2d5bd', 'matte'],
        ['Lamp light', '#d99a3d', 'transparent'],
        ['Slate roof', '#3f4858', 'metallic'],
        ['Shutter', '#3c7a6a', 'opaque'],
      ],
      design: window,
    },
    [triangle],
  ),
  { ...quay, parts: [...quay.parts, edging(quay)] },
  pieceOf(
    {
      name: 'Two moorings',
      wearer: 'Jorun',
      bodyMm: 162,
      easeMm: 13,
      closure: 'toggle',
      technique: 'peyote',
      spec: 'cylinder-11',
      columns: 12,
      repeatRows: 52,
      endRows: 0,
      notes: 'The two halves are worked by themselves and meet at two rings.',
      tray: [
        ['Rope white', '#e8e2d2', 'lustre'],
        ['Tar', '#2f2c2b', 'matte'],
        ['Buoy', '#c4472f', 'opaque'],
        ['Hull', '#2c4f7c', 'lustre'],
      ],
      design: knots,
    },
    [mooring()],
  ),
]
