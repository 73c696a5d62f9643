import type { Piece } from '../core/piece/piece'
import { fold, type Design } from './motif'
import { pieceOf } from './plan'
import { BRAID_PIECES } from './braids'
import { CARRIER_PIECES } from './carriers'
import { CHAIN_PIECES } from './chains'
import { FIT_PIECES } from './fits'
import { FLAT_PEYOTE } from './shelf'
import { HANGING_PIECES } from './hanging'
import { JOINED_PIECES } from './joined'
import { STITCH_PIECES } from './stitches'
import { SAMPLER } from './sampler'
import { WIRE_PIECES } from './wire'

/**
 * The demo workshop: pieces of an invented small workshop that prepares for a fair. All names and designs are made up.
 */
const TAU = Math.PI * 2

/**
 * A river between two banks: reeds in thin slanting lines, a blue wave with a dark edge, gold where the light falls.
 */
const reedBank: Design = (x, y, { width, length }) => {
  if (x < 1 || x > width - 1) return Math.round(y / 1.6) % 4 === 0 ? 6 : 5
  const middle = width / 2 + width * 0.24 * Math.sin((TAU * y) / length)
  const far = Math.abs(x - middle)
  if (far < 1.6) return 3
  if (far < 3.2) return fold(y / 6.4 + x / 5.2) < 0.13 ? 6 : 3
  if (far < 4.4) return 5
  const reed = fold((y / length) * 4 + (x < middle ? x : -x) / 7.8)
  if (reed < 0.09) return 4
  if (reed < 0.17 && fold((y / length) * 8) < 0.3) return 2
  return 1
}

/** Tiles: eight-pointed stars in a lattice of thin lines, with a border of running squares. */
const starTiles: Design = (x, y, { width, length }) => {
  const edge = Math.min(x, width - x)
  if (edge < 1.1) return 7
  if (edge < 3.4) return (Math.floor(y / (length / 4)) % 2 === 0) === edge < 2.2 ? 4 : 2
  if (edge < 4.6) return 7
  const inner = width - 9.2
  const u = ((x - 4.6) / inner) * 2 - 1
  const v = (y / length) * 2 - 1
  const square = Math.max(Math.abs(u), Math.abs(v))
  const diamond = (Math.abs(u) + Math.abs(v)) * 0.72
  const star = Math.min(square, diamond)
  if (star < 0.16) return 6
  if (star < 0.34) return 5
  if (star < 0.46) return 1
  if (star < 0.62) return 3
  if (Math.max(square, diamond) < 0.72) return 2
  if (fold((u + v) * 2.2) < 0.1 || fold((u - v) * 2.2) < 0.1) return 4
  return 1
}

export const DEMO_PIECES: readonly Piece[] = [
  pieceOf({
    name: 'Reed bank cuff',
    wearer: 'the fair',
    bodyMm: 168,
    easeMm: 13,
    closure: 'slide',
    technique: 'peyote',
    spec: 'cylinder-11',
    columns: 26,
    repeatRows: 24,
    endRows: 2,
    notes: 'Sample for the stall. Keep the reeds thin.',
    tray: [
      ['Fog', '#d9d4c7', 'lustre'],
      ['Sedge', '#6d8436', 'opaque'],
      ['Kingfisher', '#1b7fa3', 'lustre'],
      ['Rust', '#b5512b', 'matte'],
      ['Night water', '#252d52', 'metallic'],
      ['Old gold', '#b98a2e', 'metallic'],
    ],
    design: reedBank,
    gauges: [FLAT_PEYOTE],
  }),
  pieceOf({
    name: 'Courtyard tiles',
    wearer: 'order 14',
    bodyMm: 175,
    easeMm: 13,
    closure: 'button',
    technique: 'loom',
    spec: 'cylinder-15',
    columns: 51,
    repeatRows: 32,
    endRows: 5,
    notes: 'Wide and intricate: two evenings for the warp and the first tile.',
    tray: [
      ['Lime wash', '#e8e0cd', 'opaque'],
      ['Sky glaze', '#5b9fb5', 'lustre'],
      ['Cobalt', '#1f3f8f', 'opaque'],
      ['Terracotta', '#b4552f', 'matte'],
      ['Saffron', '#d99a21', 'opaque'],
      ['Pomegranate', '#8f1f33', 'lustre'],
      ['Kiln black', '#25211f', 'matte'],
    ],
    design: starTiles,
    supply: { thread: 'gel-4', needle: '15' },
  }),
  ...BRAID_PIECES,
  ...FIT_PIECES,
  ...STITCH_PIECES,
  ...JOINED_PIECES,
  ...CARRIER_PIECES,
  ...CHAIN_PIECES,
  ...HANGING_PIECES,
  ...WIRE_PIECES,
  SAMPLER,
]
