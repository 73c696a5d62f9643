import { cellsFrom, emptyCells } from '../core/grid/cells'
import type { Part, Piece } from '../core/piece/piece'
import { requireTechnique } from '../core/technique/registry'
import { fold, type Design } from './motif'
import { pieceOf } from './plan'

/** One piece in each further stitch, so that every lattice, path and order can be seen in the demo workshop. */
const TAU = Math.PI * 2

/** Slanting bands that turn back in the middle. */
const roofs: Design = (x, y, { width, length }) => {
  const t = ((y / length * 2 + Math.abs(2 * x / width - 1) * 0.5) % 1 + 1) % 1
  return t < 0.2 ? 3 : t < 0.36 ? 2 : t < 0.5 ? 4 : 1
}

/** A chain of lozenges on the middle column. */
const lozenges: Design = (x, y, { width, length }) => {
  const far = Math.abs(x - width / 2) / (width / 2) + Math.abs(2 * fold(y / length + 0.5)) * 1.2
  return far < 0.28 ? 4 : far < 0.6 ? 3 : far < 0.86 ? 2 : 1
}

/** Bricks of colour with pale joints. */
const terrace: Design = (x, y, { length }) => {
  const course = Math.floor(y / length * 4)
  const along = fold(y / length * 4)
  if (along < 0.12) return 1
  const t = x / 7.4 + (course % 2 ? 0.5 : 0)
  return fold(t) < 0.1 ? 1 : 2 + Math.abs(Math.round(t) + course) % 3
}

const hills: Design = (x, y, { width, length }) => {
  const h = x / width + 0.16 * Math.sin(TAU * y / length) + 0.08 * Math.sin(TAU * 3 * y / length)
  return h < 0.3 ? 1 : h < 0.44 ? 2 : h < 0.62 ? 3 : h < 0.8 ? 4 : 5
}

const rungs: Design = (_, y, { length }) => (fold(y / length) < 0.16 ? 2 : fold(y / length * 3) < 0.12 ? 3 : 1)

/** Leaning pairs in columns: each column a stem, lighter toward the top. */
const sheaves: Design = (x, y, { width, length }) => {
  const column = Math.round(x / width * 3.2)
  const t = ((y / length + column * 0.25) % 1 + 1) % 1
  return t < 0.15 ? 4 : t < 0.42 ? 3 : t < 0.7 ? 2 : 1
}

/** Squares of four beads; every second one a flower. */
const trellis: Design = (x, y, { width, length }) => {
  const u = x / width * 6
  const v = y / length * 6
  const edge = x < 1 || x > width - 1
  if (edge) return 2
  return fold(u) + fold(v) < 0.42 && (Math.round(u) + Math.round(v)) % 2 === 0 ? 3 : fold((u + v) / 3) < 0.14 ? 4 : 1
}

/** Pale arcs with dark joints, gold along the edge. */
const nets: Design = (x, y, { width, length }) => {
  if (fold(x / width * 4 - 0.12) < 0.06) return 3
  return fold(y / length * 2) < 0.2 ? 2 : 1
}

const stripesRound = (turns: number): Design => (x, y, { width, length }) => {
  const t = ((y / length + turns * x / (width || 1)) % 1 + 1) % 1
  return t < 0.2 ? 4 : t < 0.32 ? 2 : t < 0.6 ? 3 : 1
}

const speckled: Design = (x, y, { width, length }) => {
  const u = fold(x / (width + 2) * 3 + y / length)
  const v = fold(x / (width + 2) * 3 - y / length)
  return u < 0.12 && v < 0.12 ? 4 : u < 0.1 ? 3 : v < 0.1 ? 2 : 1
}

/** A small square tab, sewn to the end of a band. */
const tab: Part = {
  id: 'tab', name: 'Tab', technique: 'square', settings: requireTechnique('square').settings.parse({}), spec: 'cube-3-mm', times: 1, start: emptyCells(4, 0),
  repeat: cellsFrom(4, 4, [1, 1, 1, 1, 1, 2, 2, 1, 1, 2, 2, 1, 0, 3, 3, 0]), end: emptyCells(4, 0),
}

export const STITCH_PIECES: readonly Piece[] = [
  pieceOf({
    name: 'Picket fence', wearer: 'order 9', bodyMm: 165, easeMm: 13, closure: 'button', technique: 'square', spec: 'cylinder-11', columns: 13, repeatRows: 18, endRows: 3,
    notes: 'Larger rounds run down the middle; the slim beads beside them close the gap.',
    tray: [['Chalk', '#e9e3d4', 'matte'], ['Larkspur', '#46589c', 'opaque'], ['Copper leaf', '#b06a3c', 'metallic'], ['Sea glass', '#8fbfae', 'transparent'], ['Robin egg', '#7fb3c0', 'opaque', 'round-8']],
    design: (x, y, size) => (Math.abs(x - size.width / 2) < 0.5 && fold(y / 6.4) < 0.13 ? 5 : roofs(x, y, size)),
  }),
  pieceOf({
    name: 'Lozenge row', wearer: '', bodyMm: 171, easeMm: 6, closure: 'slide', technique: 'peyote-odd', spec: 'cylinder-11', columns: 17, repeatRows: 14, endRows: 2,
    notes: 'Odd count, so that the points sit on the middle column. Mind the longer turn.',
    tray: [['Ink', '#2b2f48', 'matte'], ['Slate', '#6f7f93', 'lustre'], ['Barley', '#d8b56a', 'opaque'], ['Brick dust', '#a84a35', 'matte']], design: lozenges,
  }),
  pieceOf({
    name: 'Allotment', wearer: 'the fair', bodyMm: 178, easeMm: 13, closure: 'toggle', technique: 'peyote-drop', spec: 'cylinder-11', columns: 24, repeatRows: 20, endRows: 2,
    notes: 'Two beads at a time: an evening quicker than single peyote.',
    tray: [['Path', '#d7cbb0', 'matte'], ['Chard', '#b83a55', 'lustre'], ['Kale', '#466a4f', 'opaque'], ['Carrot', '#d9772c', 'opaque']], design: terrace,
  }),
  pieceOf({
    name: 'Gable ends', wearer: '', bodyMm: 163, easeMm: 13, closure: 'button', technique: 'brick', spec: 'cylinder-11', columns: 14, repeatRows: 16, endRows: 6,
    notes: 'Both ends taper: one bead less a side until the loop fits.',
    tray: [['Linen', '#ded3bd', 'opaque'], ['Slate roof', '#4c5563', 'matte'], ['Door red', '#a3333a', 'opaque'], ['Brass', '#b58a33', 'metallic'], ['Evening', '#33405e', 'lustre']], design: hills,
    // Half a bead comes off each side with every row toward the outer edge.
    end: (c, r) => { const off = Math.floor((5 - r) / 2); return c < off || c > 13 - off - (r % 2 === 1 ? 1 : 0) ? 0 : 5 },
  }),
  pieceOf({
    name: 'Rung by rung', wearer: 'beginners', bodyMm: 160, easeMm: 13, closure: 'toggle', technique: 'ladder', spec: 'cube-3-mm', columns: 2, repeatRows: 12, endRows: 2,
    notes: 'A first evening’s work.',
    tray: [['Oat', '#d9c9a8', 'matte'], ['Thistle', '#7c5a8a', 'opaque'], ['Moss', '#6b7d3c', 'lustre']], design: rungs,
  }, [tab]),
  pieceOf({
    name: 'Sheaves', wearer: '', bodyMm: 172, easeMm: 13, closure: 'hook', technique: 'herringbone', spec: 'round-11', columns: 8, repeatRows: 20, endRows: 2,
    notes: '',
    tray: [['Stubble', '#cdb98c', 'matte'], ['Wheat', '#d6a545', 'lustre'], ['Rye', '#8a6a3a', 'opaque'], ['Cornflower', '#3f5fa8', 'transparent']], design: sheaves,
  }),
  pieceOf({
    name: 'Garden trellis', wearer: 'order 21', bodyMm: 168, easeMm: 13, closure: 'toggle', technique: 'right-angle', spec: 'round-11', columns: 13, repeatRows: 9, endRows: 1,
    notes: 'Six squares across. Pull each square snug before going on.',
    tray: [['White wash', '#e6e1d6', 'lustre'], ['Iron', '#4a4a52', 'metallic'], ['Clematis', '#6a4a9c', 'opaque'], ['Young leaf', '#88a84e', 'transparent']], design: trellis,
  }),
  pieceOf({
    name: 'Harbour net', wearer: '', bodyMm: 184, easeMm: 22, closure: 'button', technique: 'netting', spec: 'round-11', columns: 20, repeatRows: 8, endRows: 2,
    notes: 'Airy; wash hands before, it shows every mark.',
    tray: [['Foam', '#dfe6e2', 'lustre'], ['Rope', '#a5885c', 'matte'], ['Buoy', '#c9522f', 'opaque']], design: nets,
  }),
  pieceOf({
    name: 'Candy rope', wearer: 'the fair', bodyMm: 160, easeMm: 19, closure: 'toggle', technique: 'peyote-tube', spec: 'cylinder-11', columns: 12, repeatRows: 12, endRows: 2,
    notes: 'Work over a knitting needle; step up at the end of each round.',
    tray: [['Milk', '#efe6d6', 'opaque'], ['Raspberry', '#b2315b', 'lustre'], ['Mint', '#7cb89c', 'opaque'], ['Liquorice', '#2c2627', 'matte']], design: stripesRound(1),
  }),
  pieceOf({
    name: 'Spiral stair', wearer: '', bodyMm: 170, easeMm: 19, closure: 'toggle', technique: 'peyote-spiral', spec: 'cylinder-10', columns: 9, repeatRows: 9, endRows: 1,
    notes: 'Odd count: no step up, so it never ends until you stop.',
    tray: [['Plaster', '#e3d9c6', 'matte'], ['Bannister', '#7a4a2c', 'lustre'], ['Skylight', '#8fb4c9', 'transparent'], ['Night', '#2a2f45', 'metallic']], design: speckled,
  }),
  pieceOf({
    name: 'Lighthouse', wearer: 'order 3', bodyMm: 166, easeMm: 19, closure: 'magnet', technique: 'brick-tube', spec: 'cylinder-11', columns: 12, repeatRows: 16, endRows: 2,
    notes: 'Ask before gifting: it closes with a magnet.',
    tray: [['Salt', '#ece7dc', 'opaque'], ['Signal', '#b8322f', 'opaque'], ['Deep water', '#27486b', 'lustre'], ['Lamp', '#e5b545', 'transparent']], design: stripesRound(0),
  }),
  pieceOf({
    name: 'Bell rope', wearer: '', bodyMm: 174, easeMm: 19, closure: 'toggle', technique: 'herringbone-tube', spec: 'round-11', columns: 8, repeatRows: 16, endRows: 2,
    notes: '',
    tray: [['Ash', '#b9b2a6', 'matte'], ['Oak', '#8b6234', 'lustre'], ['Bronze', '#97722f', 'metallic'], ['Verdigris', '#4d9a8a', 'opaque']], design: stripesRound(0.5),
  }),
]
