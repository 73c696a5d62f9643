import type { BeadSpec } from '../bead/spec'

/**
 * What the picture of stitched work needs to know of a bead or a finding: plain data, so that it can be asked of a
 * worker. Lengths in mm; `holes` lie across the bead, at their distance from its middle.
 */
export interface Outline {
  readonly shape: BeadSpec['shape'] | 'finding'
  readonly l: number
  readonly d: number
  readonly holes: readonly number[]
  readonly hangs?: number
}

/** A disc of an outline: its middle along the hole and across it, and its radius, mm. */
export type Disc = readonly [u: number, v: number, r: number]

/** The outline of a bead. */
export const outlineOf = ({ shape, l, d, spacing, hangs }: BeadSpec): Outline => ({
  shape,
  l,
  d,
  holes: spacing === undefined ? [0] : [-spacing / 2, spacing / 2],
  ...(hangs === undefined ? {} : { hangs }),
})

/** The outline of a finding: nothing that beads are pushed away from, only its holes. */
export const findingOutline = (d: number, holes: number, pitch: number): Outline => ({
  shape: 'finding',
  l: 0.01,
  d,
  holes: Array.from({ length: holes }, (_, h) => (h - (holes - 1) / 2) * pitch),
})

/** Discs in a row along the hole, as long as the bead. */
function rod(l: number, d: number): Disc[] {
  const r = Math.min(l, d) / 2
  const reach = Math.max(0, l / 2 - r)
  const n = Math.max(1, Math.ceil(reach / (r * 0.6)))
  return Array.from({ length: 2 * n + 1 }, (_, i): Disc => [((i - n) / n) * reach, 0, r])
}

/** Least disc of an outline that matters, mm. */
const LEAST = 0.2

/**
 * Outlines as discs: seeds and facets are ellipses by their middle and the curvature of their ends, cones a rhombus,
 * lenses and boxes rows of discs. They are the only thing besides the holes that sets sizes.
 */
export function discsOf({ shape, l, d, holes, hangs }: Outline): readonly Disc[] {
  switch (shape) {
    case 'finding':
      return []
    case 'round': {
      const r = Math.min(d / 2, (l * l) / (2 * d))
      return [
        [0, 0, l / 2],
        [0, d / 2 - r, r],
        [0, r - d / 2, r],
      ]
    }
    case 'ball':
      return [[0, 0, Math.min(d, l) / 2]]
    case 'faceted': {
      const r = l / 2
      return [
        [0, 0, r],
        [0, d / 2 - r, r],
        [0, r - d / 2, r],
      ]
    }
    case 'bicone': {
      const [a, b] = [l / 2, d / 2]
      const r = (a * b) / Math.hypot(a, b)
      const toward = (t: number): Disc[] => [
        [a * t, 0, r * (1 - t)],
        [-a * t, 0, r * (1 - t)],
        [0, b * t, r * (1 - t)],
        [0, -b * t, r * (1 - t)],
      ]
      return [[0, 0, r], ...toward(0.45), ...toward(0.75)]
    }
    case 'almond-duo':
    case 'domed-duo': {
      // A lens, pointed across its holes.
      const R = (d * d + l * l) / (4 * l)
      return [-0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75]
        .map((t): Disc => {
          const v = (t * d) / 2
          return [0, v, Math.sqrt(R * R - v * v) - (R - l / 2)]
        })
        .filter(([, , r]) => r > LEAST)
    }
    case 'cube':
    case 'cylinder':
    case 'hex-cut': {
      const side = Math.min(d, l)
      const q = side / 4
      const corners = [1, -1].flatMap((i) => [1, -1].map((j): Disc => [i * (l / 2 - q), j * (d / 2 - q), q]))
      return [[0, 0, side / 2], ...corners]
    }
    case 'bugle':
      return rod(l, d)
    case 'drop':
    case 'long-drop': {
      const h = hangs ?? d
      return [
        [0, 0, l / 2],
        [0, h - d / 2 - l / 2, d / 2],
      ]
    }
    case 'triangle':
    case 'hexagon':
      return holes.length > 1 ? hexagon(l, d) : [[0, 0, Math.min(l, d) / 2]]
    case 'tile':
    case 'half-tile':
    case 'cord': {
      const q = Math.min(d, l) / 5
      const out: Disc[] = []
      for (let i = -2; i <= 2; i++)
        for (let j = -2; j <= 2; j++) out.push([(i / 2) * (l / 2 - q), (j / 2) * (d / 2 - q), q])
      return out
    }
  }
}

/** A flat six-sided bead: a middle and its six corners. */
function hexagon(l: number, d: number): Disc[] {
  const corners = Array.from({ length: 6 }, (_, k): Disc => {
    const turn = (k * Math.PI) / 3
    return [Math.cos(turn) * l * 0.36, Math.sin(turn) * d * 0.36, Math.min(l, d) * 0.1]
  })
  return [[0, 0, Math.min(l, d) * 0.43], ...corners]
}

/** Discs of outlines, by what they are of. */
const known = new WeakMap<Outline, readonly Disc[]>()

export function keptDiscs(outline: Outline): readonly Disc[] {
  let discs = known.get(outline)
  if (!discs) known.set(outline, (discs = discsOf(outline)))
  return discs
}
