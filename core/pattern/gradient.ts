import { keyOf } from '../grid/key'
import { BAYER_8, LENGTH_8 } from './bayer'
import { centreOf } from '../piece/drawing'
import { columnsOf, isGrid, isInside, lengthOfLine, type Part } from '../piece/piece'
import type { Box, Point } from '../technique/lattice'

export interface GradientWish {
  /** Tray numbers from one end of the blend to the other. */
  readonly sequence: readonly number[]
  /** Which way it runs; outward: from the middle of the box to its rim. */
  readonly way: 'along' | 'across' | 'outward'
  /** steps: clear bands; ordered: a regular mix; random: a mix by chance, the same for the same seed. */
  readonly blend: 'steps' | 'ordered' | 'random'
  readonly seed: number
}

/** A number of 0 … 1 for a place and a seed: an integer hash, the same on every machine. */
function chance(c: number, r: number, seed: number): number {
  let h = Math.imul(c + 0x9e37, 0x85ebca6b) ^ Math.imul(r + 0x79b9, 0xc2b2ae35) ^ Math.imul(seed + 1, 0x27d4eb2f)
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d)
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39)
  return ((h ^ (h >>> 15)) >>> 0) / 0x100000000
}

/** Middles of the corner beads of a box, mm; of lines that lie freely, the corners of the room that its beads take. */
function cornersOf(part: Part, box: Box): readonly [Point, Point] {
  if (isGrid(part))
    return [centreOf(part, box.c, box.r), centreOf(part, box.c + box.columns - 1, box.r + box.rows - 1)]
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let r = box.r; r < box.r + box.rows; r++)
    for (let c = box.c; c < Math.min(box.c + box.columns, lengthOfLine(part, r)); c++) {
      const { x, y } = centreOf(part, c, r)
      ;[x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)]
    }
  return [
    { x: x0, y: y0 },
    { x: x1, y: y1 },
  ]
}

/** A blend between beads over a box. */
export function gradientIn(part: Part, box: Box, { sequence, way, blend, seed }: GradientWish): Map<number, number> {
  const out = new Map<number, number>()
  const k = sequence.length
  if (k === 0) return out
  const columns = columnsOf(part)
  const [from, to] = cornersOf(part, box)
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }
  const halfX = Math.max(1e-9, Math.abs(to.x - from.x) / 2)
  const halfY = Math.max(1e-9, Math.abs(to.y - from.y) / 2)
  for (let r = box.r; r < box.r + box.rows; r++) {
    for (let c = box.c; c < box.c + box.columns; c++) {
      if (!isGrid(part) && !isInside(part, { c, r })) continue
      const { x, y } = centreOf(part, c, r)
      const u = (x - middle.x) / halfX
      const v = (y - middle.y) / halfY
      const t = Math.max(
        0,
        Math.min(1, way === 'along' ? (v + 1) / 2 : way === 'across' ? (u + 1) / 2 : Math.hypot(u, v) / Math.SQRT2),
      )
      const at = t * (k - 1)
      const low = Math.min(k - 1, Math.floor(at))
      const threshold = blend === 'ordered' ? BAYER_8[(r % LENGTH_8) * LENGTH_8 + (c % LENGTH_8)]! : chance(c, r, seed)
      const index = blend === 'steps' ? Math.min(k - 1, Math.floor(t * k)) : at - low > threshold ? low + 1 : low
      out.set(keyOf(columns, c, r), sequence[Math.min(k - 1, index)]!)
    }
  }
  return out
}
