/**
 * Glyphs: small marks that tell beads apart without colour. Each is drawn in a unit square (0 … 1, y down) from discs,
 * rings, strokes and polygons, so that the same data gives the chart (SVG), the print and the pixels of the mat.
 */
type Mark =
  | { readonly kind: 'disc'; readonly x: number; readonly y: number; readonly r: number }
  | { readonly kind: 'ring'; readonly x: number; readonly y: number; readonly r: number; readonly w: number }
  | { readonly kind: 'stroke'; readonly points: readonly (readonly [number, number])[]; readonly w: number }
  | { readonly kind: 'polygon'; readonly points: readonly (readonly [number, number])[] }

const W = 0.13
const stroke = (...points: [number, number][]): Mark => ({ kind: 'stroke', points, w: W })
const polygon = (...points: [number, number][]): Mark => ({ kind: 'polygon', points })
const disc = (x: number, y: number, r: number): Mark => ({ kind: 'disc', x, y, r })

export const GLYPHS = {
  seed: [disc(0.5, 0.5, 0.2)],
  ring: [{ kind: 'ring', x: 0.5, y: 0.5, r: 0.27, w: W }],
  slash: [stroke([0.22, 0.78], [0.78, 0.22])],
  cross: [stroke([0.24, 0.24], [0.76, 0.76]), stroke([0.24, 0.76], [0.76, 0.24])],
  hill: [polygon([0.5, 0.2], [0.82, 0.76], [0.18, 0.76])],
  bar: [stroke([0.5, 0.16], [0.5, 0.84])],
  stitch: [stroke([0.16, 0.5], [0.84, 0.5])],
  kite: [polygon([0.5, 0.16], [0.82, 0.5], [0.5, 0.84], [0.18, 0.5])],
  plus: [stroke([0.5, 0.18], [0.5, 0.82]), stroke([0.18, 0.5], [0.82, 0.5])],
  pair: [disc(0.28, 0.5, 0.14), disc(0.72, 0.5, 0.14)],
  backslash: [stroke([0.22, 0.22], [0.78, 0.78])],
  valley: [stroke([0.2, 0.28], [0.5, 0.74], [0.8, 0.28])],
  block: [polygon([0.24, 0.24], [0.76, 0.24], [0.76, 0.76], [0.24, 0.76])],
  rails: [stroke([0.32, 0.18], [0.32, 0.82]), stroke([0.68, 0.18], [0.68, 0.82])],
  lens: [{ kind: 'ring', x: 0.5, y: 0.5, r: 0.3, w: 0.1 }, disc(0.5, 0.5, 0.11)],
  steps: [stroke([0.2, 0.76], [0.5, 0.76], [0.5, 0.28], [0.8, 0.28])],
  roof: [stroke([0.2, 0.7], [0.5, 0.26], [0.8, 0.7])],
  beam: [stroke([0.2, 0.32], [0.8, 0.32]), stroke([0.2, 0.68], [0.8, 0.68])],
  frame: [stroke([0.24, 0.24], [0.76, 0.24], [0.76, 0.76], [0.24, 0.76], [0.24, 0.24])],
  fork: [stroke([0.5, 0.84], [0.5, 0.48]), stroke([0.22, 0.2], [0.5, 0.48], [0.78, 0.2])],
  sail: [polygon([0.24, 0.2], [0.8, 0.8], [0.24, 0.8])],
  trio: [disc(0.5, 0.27, 0.12), disc(0.26, 0.7, 0.12), disc(0.74, 0.7, 0.12)],
  hook: [stroke([0.26, 0.2], [0.26, 0.78], [0.78, 0.78])],
  drop: [polygon([0.18, 0.24], [0.82, 0.24], [0.5, 0.82])],
} as const satisfies Record<string, readonly Mark[]>

export type GlyphId = keyof typeof GLYPHS

export const GLYPH_IDS = Object.keys(GLYPHS) as [GlyphId, ...GlyphId[]]

export const marksOf = (id: GlyphId): readonly Mark[] => GLYPHS[id]

function distanceToLine(
  x: number,
  y: number,
  [ax, ay]: readonly [number, number],
  [bx, by]: readonly [number, number],
): number {
  const dx = bx - ax
  const dy = by - ay
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)))
  return Math.hypot(x - ax - t * dx, y - ay - t * dy)
}

function distanceToPolygon(x: number, y: number, points: readonly (readonly [number, number])[]): number {
  let least = Infinity
  let inside = false
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const a = points[i]!
    const b = points[j]!
    least = Math.min(least, distanceToLine(x, y, a, b))
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside
  }
  return inside ? -least : least
}

/** Signed distance of a point of the unit square to the glyph: negative inside. */
export function glyphDistance(id: GlyphId, x: number, y: number): number {
  let least = Infinity
  for (const mark of marksOf(id)) {
    switch (mark.kind) {
      case 'disc':
        least = Math.min(least, Math.hypot(x - mark.x, y - mark.y) - mark.r)
        break
      case 'ring':
        least = Math.min(least, Math.abs(Math.hypot(x - mark.x, y - mark.y) - mark.r) - mark.w / 2)
        break
      case 'stroke':
        for (let i = 1; i < mark.points.length; i++)
          least = Math.min(least, distanceToLine(x, y, mark.points[i - 1]!, mark.points[i]!) - mark.w / 2)
        break
      case 'polygon':
        least = Math.min(least, distanceToPolygon(x, y, mark.points))
        break
    }
  }
  return least
}

/** The glyph as SVG elements in a unit square, in one ink. */
export function glyphSvg(id: GlyphId, ink: string): string {
  const at = (points: readonly (readonly [number, number])[]) => points.map((p) => p.join(',')).join(' ')
  return marksOf(id)
    .map((mark) => {
      switch (mark.kind) {
        case 'disc':
          return `<circle cx="${mark.x}" cy="${mark.y}" r="${mark.r}" fill="${ink}"/>`
        case 'ring':
          return (
            `<circle cx="${mark.x}" cy="${mark.y}" r="${mark.r}" fill="none" stroke="${ink}" ` +
            `stroke-width="${mark.w}"/>`
          )
        case 'stroke':
          return (
            `<polyline points="${at(mark.points)}" fill="none" stroke="${ink}" stroke-width="${mark.w}" ` +
            'stroke-linecap="round" stroke-linejoin="round"/>'
          )
        case 'polygon':
          return `<polygon points="${at(mark.points)}" fill="${ink}"/>`
      }
    })
    .join('')
}
