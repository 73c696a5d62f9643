import type { BeadSpec } from '../bead/spec'
import { supportMm, type Bent } from './section'

/**
 * A ring of beads with two holes on doubled wire, seeds between them on each wire. Every bead is a chord of the circle
 * that the ends of its hole lie on. Lengths in mm.
 */

interface TileRing {
  readonly tiles: number
  readonly tile: Pick<BeadSpec, 'shape' | 'l' | 'd' | 'thick'>
  /** Seeds between two tiles on each wire. */
  readonly seeds: number
  readonly seed: Bent
  /** What the closing leaves open, mm. */
  readonly jointMm: number
}

export interface RoundTiles {
  /** Circle that the ends of holes lie on: its radius. */
  readonly radiusMm: number
  /** Inside circumference: the ISO size. */
  readonly insideMm: number
  /** Wire once round. */
  readonly wireMm: number
  /** Between a tile and a seed, and between two seeds (two tiles, where there are none): what bending opens. */
  readonly gapsMm: readonly [number, number]
  /** Whether the finger feels the seeds: they reach further in than the tiles. */
  readonly seedsFirst: boolean
}

/** A tile as it is seen in the ring: as long as its hole, as high as it is thick. */
const onEdge = ({ shape, l, d, thick }: TileRing['tile']): Bent => ({ shape, l, d: thick ?? d })

/** What stays open between a straight end and a bead that is turned against it by `turn`. */
const against = (bead: Bent, turn: number): number => supportMm(bead, turn) - (bead.l / 2) * Math.cos(turn)

/** The circle that a ring closes on. Ends of holes: Σ 2 asin(l / 2ρ) + (gaps + joint) / ρ = 2 π. */
export function roundOfTiles({ tiles, tile, seeds, seed, jointMm }: TileRing): RoundTiles {
  const edge = onEdge(tile)
  const half = (l: number, radius: number) => Math.asin(Math.min(1, l / (2 * radius)))
  const gapsAt = (radius: number): readonly [number, number] => {
    const open = (turn: number, of: (turn: number) => number): number => {
      let gap = 0
      for (let k = 0; k < 20; k++) gap = of(turn + gap / radius)
      return gap
    }
    const [t, s] = [half(tile.l, radius), half(seed.l, radius)]
    const alike = seeds > 0 ? { bead: seed, turn: 2 * s } : { bead: edge, turn: 2 * t }
    return [
      seeds > 0 ? open(t + s, (turn) => against(seed, turn)) : 0,
      open(alike.turn, (turn) => 2 * against(alike.bead, turn / 2)),
    ]
  }
  const openMm = ([beside, between]: readonly [number, number]) =>
    tiles * (seeds > 0 ? 2 * beside + (seeds - 1) * between : between)
  const turned = (radius: number): number =>
    tiles * half(tile.l, radius) +
    tiles * seeds * half(seed.l, radius) +
    (openMm(gapsAt(radius)) + jointMm) / (2 * radius)
  const straight = tiles * (tile.l + seeds * seed.l) + jointMm
  let [low, high] = [Math.max(tile.l, seeds > 0 ? seed.l : 0) / 2 + 1e-6, straight]
  for (let k = 0; k < 60; k++) {
    const radius = (low + high) / 2
    if (turned(radius) > Math.PI) low = radius
    else high = radius
  }
  const gapsMm = gapsAt(low)
  const inner = (l: number, high: number) => Math.sqrt(Math.max(0, low * low - (l * l) / 4)) - high / 2
  const byTiles = inner(tile.l, edge.d)
  const bySeeds = seeds > 0 ? inner(seed.l, seed.d) : Infinity
  return {
    radiusMm: low,
    insideMm: 2 * Math.PI * Math.max(0, Math.min(byTiles, bySeeds)),
    wireMm: straight + openMm(gapsMm),
    gapsMm,
    seedsFirst: bySeeds < byTiles - 1e-9,
  }
}

/** Fewest and most tiles that a ring is made of. */
export const TILES = { least: 5, most: 40 } as const

/** How many tiles come nearest to an inside circumference: the count below or at it, and the one above. */
export function tilesFor(
  insideMm: number,
  ring: Omit<TileRing, 'tiles'>,
): readonly { readonly tiles: number; readonly insideMm: number }[] {
  const size = (tiles: number) => ({ tiles, insideMm: roundOfTiles({ ...ring, tiles }).insideMm })
  let under = TILES.least
  while (under < TILES.most - 1 && size(under + 1).insideMm <= insideMm + 1e-9) under++
  return [size(under), size(under + 1)]
}
