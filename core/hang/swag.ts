/**
 * A swag: beads on a thread from one point to another at the same height. Beads are taken as a cord of even weight
 * that does not resist bending: a catenary. A chain of 20 rigid beads hangs within 0.2 % of it.
 */
export interface Swag {
  readonly spanMm: number
  readonly lengthMm: number
  /** How far its lowest point lies below its ends. */
  readonly sagMm: number
  /** Radius of its bend at the bottom, where it is tightest. */
  readonly radiusMm: number
}

/** sinh u / u. */
const stretch = (u: number): number => (u < 1e-6 ? 1 : Math.sinh(u) / u)

/** The number above 0 at which a function that rises there comes to a value. */
function rising(f: (u: number) => number, value: number): number {
  let [low, high] = [0, 1]
  while (f(high) < value) high *= 2
  for (let k = 0; k < 200 && high - low > 1e-14 * high; k++) {
    const middle = (low + high) / 2
    if (f(middle) < value) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/**
 * The swag of a length over a span, mm: u from sinh u / u = ℓ / S, a = S / 2u, sag = a (cosh u − 1). Null where the
 * length does not reach over the span.
 */
export function swagOf(spanMm: number, lengthMm: number): Swag | null {
  if (!(spanMm > 0) || lengthMm <= spanMm) return null
  const u = rising(stretch, lengthMm / spanMm)
  const radiusMm = spanMm / (2 * u)
  return { spanMm, lengthMm, radiusMm, sagMm: radiusMm * (Math.cosh(u) - 1) }
}

/** Length that hangs so far down over a span, mm. */
export function lengthForSag(spanMm: number, sagMm: number): number {
  if (sagMm <= 0) return spanMm
  const u = rising((v) => (v < 1e-6 ? 0 : (Math.cosh(v) - 1) / (2 * v)), sagMm / spanMm)
  return spanMm * stretch(u)
}

/** Where something lies on a swag, mm from its left end, y down, and how it is turned. */
interface OnSwag {
  readonly x: number
  readonly y: number
  readonly turnDegrees: number
}

/**
 * Where beads of these lengths lie on their swag: the ends of their holes on the curve, one after the other; turned as
 * the line between these. A swag that does not reach is drawn straight.
 */
export function swagPlaces(spanMm: number, lengths: readonly number[]): OnSwag[] {
  const total = lengths.reduce((sum, l) => sum + l, 0)
  const swag = swagOf(spanMm, total)
  const at = (s: number): { x: number; y: number } => {
    if (!swag) return { x: total === 0 ? 0 : (s / total) * spanMm, y: 0 }
    const { radiusMm: a, sagMm } = swag
    // Along the curve from its lowest point: s = a sinh (x / a).
    const x = a * Math.asinh((s - total / 2) / a)
    return { x: x + spanMm / 2, y: sagMm - a * (Math.cosh(x / a) - 1) }
  }
  let along = 0
  return lengths.map((l) => {
    const [from, to] = [at(along), at(along + l)]
    along += l
    return {
      x: (from.x + to.x) / 2,
      y: (from.y + to.y) / 2,
      turnDegrees: (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI,
    }
  })
}
