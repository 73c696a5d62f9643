/**
 * Curves that wire is bent to, as data: straight lines and arcs of ellipses, one after the other. Lengths in mm, x to
 * the right and y down; angles of arcs in radians from the top, clockwise as it is seen.
 */
/** A point, mm: x to the right, y down. */
export interface Spot {
  readonly x: number
  readonly y: number
}

export type Segment =
  | { readonly do: 'line'; readonly from: Spot; readonly to: Spot }
  | {
      readonly do: 'arc'
      readonly middle: Spot
      /** Half axes across and down. */
      readonly a: number
      readonly b: number
      readonly from: number
      readonly to: number
    }

export interface Curve {
  readonly segments: readonly Segment[]
  readonly closed: boolean
}

/** A place on a curve: where, which way it leads (degrees clockwise from the right), and how it bends, 1/mm. */
export interface OnCurve extends Spot {
  readonly turnDegrees: number
  /** 1 / radius; positive where it turns clockwise. */
  readonly bend: number
}

export interface MeasuredCurve {
  readonly closed: boolean
  readonly lengthMm: number
  /** A place so far along, mm; beyond an end of an open curve the end itself, round a closed one on and on. */
  at(s: number): OnCurve
  /** How it bends so far along, 1/mm, as `at` says. */
  bendAt(s: number): number
  /** Places at so many even steps from its beginning to its end, both with them; found once. */
  along(steps: number): readonly OnCurve[]
  /** Where the way turns of a sudden: how far along, mm, and by how much, radians. */
  readonly kinks: readonly { readonly at: number; readonly tau: number }[]
}

/** Pieces that each arc is measured by. */
const PIECES = 720
/** Points and weights of Gauss for three points on −1 … 1. */
const GAUSS = [
  [-Math.sqrt(3 / 5), 5 / 9],
  [0, 8 / 9],
  [Math.sqrt(3 / 5), 5 / 9],
] as const

type Arc = Extract<Segment, { do: 'arc' }>

const speed = ({ a, b }: Arc, t: number): number => Math.hypot(a * Math.cos(t), b * Math.sin(t))

const pointOf = (seg: Segment, t: number): Spot =>
  seg.do === 'line'
    ? { x: seg.from.x + (seg.to.x - seg.from.x) * t, y: seg.from.y + (seg.to.y - seg.from.y) * t }
    : { x: seg.middle.x + seg.a * Math.sin(t), y: seg.middle.y - seg.b * Math.cos(t) }

/** Which way a segment leads at t, radians. */
function headingOf(seg: Segment, t: number): number {
  if (seg.do === 'line') return Math.atan2(seg.to.y - seg.from.y, seg.to.x - seg.from.x)
  const way = seg.to >= seg.from ? 1 : -1
  return Math.atan2(way * seg.b * Math.sin(t), way * seg.a * Math.cos(t))
}

function bendOf(seg: Segment, t: number): number {
  if (seg.do === 'line') return 0
  const way = seg.to >= seg.from ? 1 : -1
  return (way * seg.a * seg.b) / speed(seg, t) ** 3
}

/** Lengths up to each of the pieces of a segment, mm. */
function tableOf(seg: Segment): Float64Array {
  if (seg.do === 'line') return Float64Array.of(0, Math.hypot(seg.to.x - seg.from.x, seg.to.y - seg.from.y))
  const out = new Float64Array(PIECES + 1)
  const step = (seg.to - seg.from) / PIECES
  for (let k = 0; k < PIECES; k++) {
    const middle = seg.from + (k + 0.5) * step
    const mm = GAUSS.reduce((sum, [x, w]) => sum + w * speed(seg, middle + (x * step) / 2), 0)
    out[k + 1] = out[k]! + (Math.abs(step) / 2) * mm
  }
  return out
}

/** The place in a table, as a share of its pieces, that lies `mm` along. */
function shareAt(table: Float64Array, mm: number): number {
  const last = table.length - 2
  // Pieces are about as long as each other: the right one is not far.
  let low = Math.min(last, Math.max(0, Math.floor((mm / table[last + 1]!) * (last + 1)) || 0))
  while (low > 0 && table[low]! > mm) low--
  while (low < last && table[low + 1]! <= mm) low++
  const wide = table[low + 1]! - table[low]!
  return (low + (wide > 0 ? Math.min(1, Math.max(0, (mm - table[low]!) / wide)) : 0)) / (last + 1)
}

const parameterAt = (seg: Segment, share: number): number =>
  seg.do === 'line' ? share : seg.from + (seg.to - seg.from) * share

/** An angle between −π and π. */
const within = (angle: number): number => Math.atan2(Math.sin(angle), Math.cos(angle))

/** A turn smaller than this is no kink, radians: joints of arcs that run on smoothly. */
const SMOOTH = 1e-6

/** A curve with its length, and its places by how far along they lie. */
export function measured(curve: Curve): MeasuredCurve {
  const { segments, closed } = curve
  const tables = segments.map(tableOf)
  const before = [0]
  for (const table of tables) before.push(before.at(-1)! + table.at(-1)!)
  const lengthMm = before.at(-1)!
  const kinks: { at: number; tau: number }[] = []
  segments.forEach((seg, k) => {
    const next = segments[k + 1] ?? (closed ? segments[0] : undefined)
    if (!next) return
    const tau = Math.abs(within(headingOf(next, parameterAt(next, 0)) - headingOf(seg, parameterAt(seg, 1))))
    if (tau > SMOOTH) kinks.push({ at: k + 1 < segments.length ? before[k + 1]! : 0, tau })
  })
  const alongOf = (s: number): number =>
    closed ? s - lengthMm * Math.floor(s / lengthMm) : Math.min(lengthMm, Math.max(0, s))
  const segmentAt = (along: number): number => {
    let k = segments.length - 1
    while (k > 0 && before[k]! > along) k--
    return k
  }
  const parameterOn = (k: number, along: number): number =>
    parameterAt(segments[k]!, shareAt(tables[k]!, along - before[k]!))
  const at = (s: number): OnCurve => {
    const along = alongOf(s)
    const k = segmentAt(along)
    const [seg, t] = [segments[k]!, parameterOn(k, along)]
    return { ...pointOf(seg, t), turnDegrees: (headingOf(seg, t) * 180) / Math.PI, bend: bendOf(seg, t) }
  }
  const bendAt = (s: number): number => {
    const along = alongOf(s)
    const k = segmentAt(along)
    const seg = segments[k]!
    return seg.do === 'line' ? 0 : bendOf(seg, parameterOn(k, along))
  }
  return { ...walked({ closed, lengthMm, at, bendAt }), kinks: kinks.sort((x, y) => x.at - y.at) }
}

type Ways = Pick<MeasuredCurve, 'closed' | 'lengthMm' | 'at' | 'bendAt'>

/** A curve that is walked once for each number of steps. */
function walked(curve: Ways): Ways & Pick<MeasuredCurve, 'along'> {
  const known = new Map<number, readonly OnCurve[]>()
  return {
    ...curve,
    along(steps) {
      let found = known.get(steps)
      if (!found) {
        // The very end of a closed curve is its beginning: it is told from just before.
        found = Array.from({ length: steps + 1 }, (_, k) =>
          curve.at((curve.lengthMm * Math.min(k, steps - 1e-6)) / steps),
        )
        known.set(steps, found)
      }
      return found
    },
  }
}

/**
 * A closed curve that is left open at its beginning, `openMm` of its way: half of that on both sides. Not more than
 * half of the way round.
 */
export function opened(curve: MeasuredCurve, openMm: number): MeasuredCurve {
  const half = Math.min(openMm, curve.lengthMm / 2) / 2
  if (!(half > 0)) return curve
  const lengthMm = curve.lengthMm - 2 * half
  const on = (s: number): number => half + Math.min(lengthMm, Math.max(0, s))
  return {
    ...walked({ closed: false, lengthMm, at: (s) => curve.at(on(s)), bendAt: (s) => curve.bendAt(on(s)) }),
    kinks: curve.kinks.map(({ at, tau }) => ({ at: at - half, tau })).filter(({ at }) => at > 0 && at < lengthMm),
  }
}
