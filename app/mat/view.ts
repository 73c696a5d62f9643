import { placeNear } from '#core/piece/drawing'
import { axesOf, screenPoint, sizeOnScreen, workPoint, type Lie, type View } from '#core/picture/view'
import { boxOfWhole } from '#core/picture/whole'
import type { Place } from '#core/technique/lattice'
import type { Whole } from '#core/piece/joint'
import { techniqueOf, type Part } from '#core/piece/piece'

/** The view transform: an immutable value. Lengths in CSS px; `scale` is px a millimetre. */
export interface Size {
  readonly width: number
  readonly height: number
}

/** What lies on the mat: the part in hand, and all parts as they lie where it is not the only one. */
export interface Seen {
  readonly part: Part
  readonly whole: Whole | null
}

/** The box round all that is seen, px. */
const boxOf = ({ part, whole }: Seen, view: View) =>
  whole ? boxOfWhole(whole, part, view) : { x: view.x, y: view.y, ...sizeOnScreen(part, view) }

const MOST_SCALE = 60
/** A first view is no closer than this. */
const BEGIN_SCALE = 13
/** Where all parts would be smaller than this, a first view shows the one in hand. */
const LEAST_BEGIN_SCALE = 3
const LEAST_SCALE = 0.15

/** Room kept free round the work for rulers and tools, px. */
const EDGE = { top: 84, bottom: 56, side: 28 }

/**
 * Upright work begins at the foot, where its column numbers and the tools of the view are: there is more kept free.
 */
const footOf = (lie: Lie): number => (lie === 'upright' ? EDGE.bottom + 36 : EDGE.bottom)

/** On a phone the scale is told under the tools, for those of the view take the whole foot. */
const SCALE_ROW = 20
const NARROW = 600
const topOf = (size: Size): number => EDGE.top + (size.width <= NARROW ? SCALE_ROW : 0)

/** Beside upright work, on its right, the rule is drawn. */
const RULE_SIDE = 68
const rightOf = (lie: Lie): number => (lie === 'upright' ? RULE_SIDE : EDGE.side)

const clampScale = (scale: number): number => Math.min(MOST_SCALE, Math.max(LEAST_SCALE, scale))

type Lying = Pick<View, 'lie' | 'flip'>

export function viewOfAll(seen: Seen, lying: Lying, size: Size): View {
  const unit = boxOf(seen, { ...lying, scale: 1, x: 0, y: 0 })
  const scale = clampScale(
    Math.min(
      (size.width - EDGE.side - rightOf(lying.lie)) / Math.max(1, unit.width),
      (size.height - topOf(size) - footOf(lying.lie)) / Math.max(1, unit.height),
    ),
  )
  return centred(seen, lying, scale, size)
}

/**
 * A first view that is worth looking at: the width fills about half of the mat, from the beginning of the work, on
 * whichever side that lies. Of several parts all are seen where there is room.
 */
export function viewToBegin(seen: Seen, lying: Lying, size: Size): View {
  const { part } = seen
  const { lie } = lying
  const all = viewOfAll(seen, lying, size)
  // What hangs together, or is bent to a size, is looked at as a whole.
  if ((seen.whole || techniqueOf(part).wire?.upright) && all.scale >= LEAST_BEGIN_SCALE)
    return all.scale <= BEGIN_SCALE ? all : centred(seen, lying, BEGIN_SCALE, size)
  const unit = sizeOnScreen(part, { lie, scale: 1 })
  const across =
    lie === 'level'
      ? (size.height - topOf(size) - footOf(lie)) / unit.height
      : (size.width - EDGE.side - rightOf(lie)) / unit.width
  const scale = clampScale(Math.max(all.scale, Math.min(across * 0.86, BEGIN_SCALE)))
  const view = centred({ part, whole: null }, lying, scale, size)
  const work = sizeOnScreen(part, view)
  const { sx, sy } = axesOf(part, view)
  if (lie === 'level')
    return { ...view, x: sx > 0 ? Math.max(view.x, EDGE.side) : Math.min(view.x, size.width - EDGE.side - work.width) }
  return {
    ...view,
    y: sy > 0 ? Math.max(view.y, topOf(size)) : Math.min(view.y, size.height - footOf(lie) - work.height),
  }
}

export function centred(seen: Seen, { lie, flip }: Lying, scale: number, size: Size): View {
  const lying = { lie, ...(flip ? { flip } : {}) }
  const box = boxOf(seen, { ...lying, scale, x: 0, y: 0 })
  const free = size.height - topOf(size) - footOf(lie)
  // In the middle, if the rule has its room there; else as far to the left as all can be seen.
  const middle = (size.width - box.width) / 2
  const beside = Math.max(EDGE.side, size.width - rightOf(lie) - box.width)
  return {
    ...lying,
    scale,
    x: Math.round((box.width > size.width ? middle : Math.min(middle, beside)) - box.x),
    y: Math.round(topOf(size) + (free - box.height) / 2 - box.y),
  }
}

/** Zooms by a factor about a point of the screen, which stays where it is. */
export function zoomed(view: View, factor: number, at: { readonly x: number; readonly y: number }): View {
  const scale = clampScale(view.scale * factor)
  const k = scale / view.scale
  return { ...view, scale, x: at.x - (at.x - view.x) * k, y: at.y - (at.y - view.y) * k }
}

/** The view moved, with at least a corner of the work kept in sight. */
export function moved(seen: Seen, view: View, dx: number, dy: number, size: Size): View {
  const box = boxOf(seen, view)
  const keep = 60
  const hold = (at: number, length: number, room: number) => Math.min(room - keep, Math.max(keep - length, at))
  return {
    ...view,
    x: view.x + hold(box.x + dx, box.width, size.width) - box.x,
    y: view.y + hold(box.y + dy, box.height, size.height) - box.y,
  }
}

/** The cell under a point of the screen; it may lie outside the work. */
export function placeAt(part: Part, view: View, x: number, y: number): Place {
  const p = workPoint(part, view, x, y)
  return placeNear(part, view.lie === 'level' ? { x: p.y, y: p.x } : p)
}

/** Middle of a cell on the screen, px. */
export const pointOf = (part: Part, view: View, { c, r }: Place): { x: number; y: number } =>
  screenPoint(part, view, c, r)

/** Moves the view as little as needed to bring a cell into sight. */
export function showing(part: Part, view: View, place: Place, size: Size): View {
  const { x, y } = pointOf(part, view, place)
  const over = (at: number, low: number, high: number) => (at < low ? low - at : at > high ? high - at : 0)
  return {
    ...view,
    x: view.x + over(x, EDGE.side + 24, size.width - rightOf(view.lie)),
    y: view.y + over(y, topOf(size), size.height - footOf(view.lie)),
  }
}
