import { measured, type Curve, type MeasuredCurve, type Segment } from './curve'

/**
 * Frames that wire is bent to, as the middle of the wire. Each begins at its top, in the middle, and runs clockwise as
 * it is seen. Lengths in mm.
 */
export const FRAME_SHAPES = ['circle', 'oval', 'egg', 'drop', 'heart', 'polygon'] as const
export type FrameShape = (typeof FRAME_SHAPES)[number]

/** A frame without its size: how its measures stand to each other. */
export interface FrameForm {
  readonly shape: FrameShape
  /** Height to width; of a drop and a heart the point below the middle of its round, to that round’s radius. */
  readonly tall: number
  /** Share of an egg’s height above its widest place. */
  readonly upper: number
  /** Corners of a polygon, and how far they are rounded, as a share of a side. */
  readonly corners: number
  readonly rounded: number
}

const FULL = 2 * Math.PI
const arc = (x: number, y: number, a: number, b: number, from: number, to: number): Segment => ({
  do: 'arc',
  middle: { x, y },
  ...{ a, b, from, to },
})
const line = (x1: number, y1: number, x2: number, y2: number): Segment => ({
  do: 'line',
  from: { x: x1, y: y1 },
  to: { x: x2, y: y2 },
})

/** A drop: a round, and two straight sides to the point above it, where it begins. */
export function drop(radius: number, above: number): Curve {
  // Where a line from the point touches the round.
  const touch = Math.acos(radius / above)
  const [x, y] = [radius * Math.sin(touch), -radius * Math.cos(touch)]
  return {
    closed: true,
    segments: [line(0, -above, x, y), arc(0, 0, radius, radius, touch, FULL - touch), line(-x, y, 0, -above)],
  }
}

/** A heart: two rounds that meet in a cleft, where it begins, and straight sides to the point below. */
export function heart(radius: number, aside: number, below: number): Curve {
  const from = -Math.asin(aside / radius)
  // Where a line from the point touches the right round.
  const to = Math.PI + Math.atan2(aside, below) - Math.acos(radius / Math.hypot(aside, below))
  const [x, y] = [aside + radius * Math.sin(to), -radius * Math.cos(to)]
  return {
    closed: true,
    segments: [
      arc(aside, 0, radius, radius, from, to),
      line(x, y, 0, below),
      line(0, below, -x, y),
      arc(-aside, 0, radius, radius, FULL - to, FULL - from),
    ],
  }
}

/** A polygon with its corners rounded, a corner above, begun in the middle of that corner’s round. */
export function polygon(corners: number, radius: number, rounded: number): Curve {
  const turn = FULL / corners
  const side = 2 * radius * Math.sin(turn / 2)
  const round = Math.min(0.49, rounded) * side
  // Radius of the round that takes that much of both sides of a corner.
  const rho = round / Math.tan(turn / 2)
  const middle = radius - rho / Math.cos(turn / 2)
  const segments: Segment[] = []
  const at = (k: number) => ({ x: Math.sin(k * turn), y: -Math.cos(k * turn) })
  const corner = (k: number, from: number, to: number) => {
    if (rho > 0) segments.push(arc(middle * at(k).x, middle * at(k).y, rho, rho, k * turn + from, k * turn + to))
  }
  for (let k = 0; k < corners; k++) {
    corner(k, k === 0 ? 0 : -turn / 2, turn / 2)
    const leave = (n: number, lean: number) => ({
      x: middle * at(n).x + rho * Math.sin(n * turn + lean),
      y: middle * at(n).y - rho * Math.cos(n * turn + lean),
    })
    const [p, q] = [leave(k, turn / 2), leave(k + 1, -turn / 2)]
    segments.push(line(p.x, p.y, q.x, q.y))
  }
  corner(corners, -turn / 2, 0)
  return { closed: true, segments }
}

/** Half of the width at which a form is drawn before it is scaled, mm. */
const UNIT = 10

function drawn({ shape, tall, upper, corners, rounded }: FrameForm): Curve {
  switch (shape) {
    case 'circle':
      return { closed: true, segments: [arc(0, 0, UNIT, UNIT, 0, FULL)] }
    case 'oval':
      return { closed: true, segments: [arc(0, 0, UNIT, UNIT * tall, 0, FULL)] }
    case 'egg': {
      const [up, down] = [2 * UNIT * tall * upper, 2 * UNIT * tall * (1 - upper)]
      return {
        closed: true,
        segments: [
          arc(0, 0, UNIT, up, 0, FULL / 4),
          arc(0, 0, UNIT, down, FULL / 4, (3 * FULL) / 4),
          arc(0, 0, UNIT, up, (3 * FULL) / 4, FULL),
        ],
      }
    }
    case 'drop':
      return drop(UNIT, UNIT * tall)
    case 'heart':
      return heart(UNIT * 0.55, UNIT * 0.45, UNIT * 0.55 * tall)
    case 'polygon':
      return polygon(corners, UNIT, rounded)
  }
}

const scaled = ({ segments, closed }: Curve, by: number): Curve => ({
  closed,
  segments: segments.map((seg): Segment => {
    const point = ({ x, y }: { x: number; y: number }) => ({ x: x * by, y: y * by })
    return seg.do === 'line'
      ? { ...seg, from: point(seg.from), to: point(seg.to) }
      : { ...seg, middle: point(seg.middle), a: seg.a * by, b: seg.b * by }
  }),
})

/** The frame of a form whose wire is so long, mm, loops and ends left out: equal forms scale with their length. */
export function frameOfLength(form: FrameForm, lengthMm: number): MeasuredCurve {
  const one = drawn(form)
  return measured(scaled(one, lengthMm / measured(one).lengthMm))
}

/** The frame of a form that is so wide from side to side, mm, between the middles of its wire. */
export function frameOfWidth(form: FrameForm, widthMm: number): MeasuredCurve {
  const one = drawn(form)
  const { left, right } = boxOf(measured(one))
  return measured(scaled(one, widthMm / (right - left)))
}

/** Steps that a curve is walked in for its box. */
const WALK = 1440

/** The box that a curve lies in, mm. */
export function boxOf(curve: MeasuredCurve): { left: number; right: number; top: number; bottom: number } {
  const box = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity }
  for (const { x, y } of curve.along(WALK)) {
    box.left = Math.min(box.left, x)
    box.right = Math.max(box.right, x)
    box.top = Math.min(box.top, y)
    box.bottom = Math.max(box.bottom, y)
  }
  return box
}
