import type { Piece } from '../core/piece/piece'
import { fold, type Design } from './motif'
import { pieceOf } from './plan'
import { FLAT_PEYOTE } from './shelf'

/** Further ways to fit: round the neck with a chain, on a finger, at the ears, as a rope. */
export const bands: Design = (x, y, { length }) => {
  const t = y / length
  return fold(t * 2) < 0.1 ? 3 : fold(t * 4 + x / 40) < 0.12 ? 2 : fold(t * 2 + 0.25) < 0.05 ? 4 : 1
}
const vines: Design = (x, y, { width, length }) => {
  const middle = width / 2 + width * 0.3 * Math.sin((Math.PI * 2 * y) / length)
  const far = Math.abs(x - middle)
  return far < 0.9 ? 3 : far < 2 && fold((y / length) * 3) < 0.2 ? 2 : fold((x - y) / 9) < 0.05 ? 4 : 1
}
const drops: Design = (x, y, { width, length }) => {
  const far = Math.abs(x - width / 2) / (width / 2) + Math.abs((2 * y) / length - 1)
  return far < 0.5 ? 4 : far < 0.8 ? 3 : far < 1.1 ? 2 : 1
}
export const TIDE: readonly (readonly [string, string, 'lustre' | 'matte' | 'metallic' | 'opaque' | 'transparent'])[] =
  [
    ['Fog', '#d9d4c7', 'lustre'],
    ['Kingfisher', '#1b7fa3', 'lustre'],
    ['Night water', '#252d52', 'metallic'],
    ['Old gold', '#b98a2e', 'metallic'],
  ]

export const FIT_PIECES: readonly Piece[] = [
  pieceOf({
    name: 'Orchard choker',
    kind: 'choker',
    wearer: 'Tilda',
    bodyMm: 338,
    easeMm: 15,
    closure: 'hook',
    closureMore: { extenderMm: 50 },
    technique: 'loom',
    spec: 'cylinder-11',
    columns: 11,
    repeatRows: 22,
    endRows: 4,
    notes: '',
    tray: [
      ['Chalk', '#e9e3d4', 'matte'],
      ['Sedge', '#6d8436', 'opaque'],
      ['Pomegranate', '#8f1f33', 'lustre'],
      ['Rust', '#b5512b', 'matte'],
    ],
    design: vines,
  }),
  pieceOf({
    name: 'Tide line ring',
    kind: 'ring',
    wearer: 'Tilda',
    bodyMm: 52,
    easeMm: 0,
    closure: 'none',
    technique: 'peyote',
    spec: 'cylinder-11',
    columns: 6,
    repeatRows: 12,
    endRows: 0,
    notes: 'Ends joined row to row.',
    tray: TIDE,
    design: bands,
    gauges: [FLAT_PEYOTE],
  }),
  pieceOf({
    name: 'Lantern drops',
    kind: 'earrings',
    wearer: 'the fair',
    bodyMm: 42,
    easeMm: 0,
    closure: 'ear-wire',
    technique: 'peyote',
    spec: 'cylinder-11',
    columns: 10,
    repeatRows: 24,
    endRows: 0,
    notes: 'Five pairs for the stall.',
    tray: TIDE,
    design: drops,
    gauges: [FLAT_PEYOTE],
    supply: { batch: 5 },
    cost: { closure: 70, asked: 5900, threadPrice: 1290 },
  }),
  pieceOf({
    name: 'Harbour rope',
    kind: 'necklace',
    wearer: 'window',
    bodyMm: 457.2,
    easeMm: 0,
    closure: 'hook',
    technique: 'peyote-tube',
    spec: 'cylinder-10',
    columns: 8,
    repeatRows: 18,
    endRows: 2,
    notes: '',
    tray: [
      ['Blue hour', '#2c3e63', 'matte'],
      ['Lantern', '#e7b04a', 'transparent'],
      ['Paper rose', '#cf7f86', 'lined'],
      ['Ember', '#d2562f', 'opaque'],
    ],
    design: vines,
  }),
]
