import { techniqueOf, type Part } from '../piece/piece'
import { drawnSize } from '../piece/drawn-size'
import type { Lattice, Lie, Point } from '../technique/lattice'
import { centreOf, halfAt, isScattered, latticeAlong, latticeOf } from '../piece/drawing'

export type { Lie }

/**
 * What is exchanged besides: the edges (`across`), the ends (`along`). One of them shows the wrong side; both turn the
 * work by half.
 */
export interface Flip {
  readonly across: boolean
  readonly along: boolean
}

/** How a work is looked at: from its wrong side, and turned by half on the screen. */
export const flipOf = ({ wrongSide, turned }: { readonly wrongSide: boolean; readonly turned: boolean }): Flip => ({
  across: wrongSide !== turned,
  along: turned,
})

/** Whether that shows the wrong side. */
export const isWrongSide = (flip: Flip | undefined): boolean => flip !== undefined && flip.across !== flip.along

/** How a work lies on the screen. */
export interface Lying {
  readonly lie: Lie
  readonly flip?: Flip
}

/** What hangs, or is worn from its top down, is seen so: its first lines above. */
const HANGING: Lying = { lie: 'upright', flip: flipOf({ wrongSide: false, turned: true }) }

/** How a piece is looked at where nobody says how: level, or as it hangs. */
export const usualLying = (parts: readonly Part[]): Lying =>
  parts.some((p) => techniqueOf(p).hangs === true || techniqueOf(p).wire?.upright) ? HANGING : { lie: 'level' }

/** How the work is seen: pixels a millimetre and where the work's corner lies, px. */
export interface View {
  readonly lie: Lie
  readonly scale: number
  readonly x: number
  readonly y: number
  readonly flip?: Flip
}

/** A rectangle of whole pixels. */
export interface PixelRect {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** The lattice whose x runs with the screen's: i steps across the screen, j up or down it. */
export const latticeOnScreen = (part: Part, lie: Lie): Lattice =>
  lie === 'level' ? latticeAlong(part) : latticeOf(part)

/** Size of the whole work on the screen, px. */
export function sizeOnScreen(
  part: Part,
  { lie, scale }: Pick<View, 'lie' | 'scale'>,
): { width: number; height: number } {
  const { width, length } = drawnSize(part)
  return lie === 'level'
    ? { width: length * scale, height: width * scale }
    : { width: width * scale, height: length * scale }
}

/** The two axes of the screen: a position in the work's own mm becomes px as `from + sign · scale · mm`. */
export interface Axes {
  readonly x0: number
  readonly sx: number
  readonly y0: number
  readonly sy: number
  readonly scale: number
}

export function axesOf(part: Part, view: View): Axes {
  const size = sizeOnScreen(part, view)
  const { flip = { across: false, along: false }, lie } = view
  const flipX = lie === 'level' ? flip.along : flip.across
  // Upright, the rows rise.
  const flipY = lie === 'level' ? flip.across : !flip.along
  return {
    x0: flipX ? view.x + size.width : view.x,
    sx: flipX ? -view.scale : view.scale,
    y0: flipY ? view.y + size.height : view.y,
    sy: flipY ? -view.scale : view.scale,
    scale: view.scale,
  }
}

/**
 * What the arrow → of the words means where it does not run to the right on the screen: a sentence to be said once
 * beside the work, empty where there is nothing to say.
 */
export function arrowNote(part: Part, view: Pick<View, 'lie' | 'flip'>): string {
  // On a rope the beads of a round lie scattered: no arrow runs across it.
  if (isScattered(part)) return ''
  const { sx, sy } = axesOf(part, { scale: 1, x: 0, y: 0, ...view })
  if (view.lie === 'level')
    return sy > 0
      ? '→ in the words runs from the upper edge to the lower'
      : '→ in the words runs from the lower edge to the upper'
  return sx > 0 ? '' : '→ in the words runs from right to left here'
}

/** Middle of a cell on the screen, px. */
export function screenPoint(part: Part, view: View, c: number, r: number): Point {
  const { x, y } = centreOf(part, c, r)
  return screenOfWork(part, view, x, y)
}

/** A point of the work on the screen, px: x across its width and y along its length, mm. */
export function screenOfWork(part: Part, view: View, x: number, y: number): Point {
  const axes = axesOf(part, view)
  const [a, b] = view.lie === 'level' ? [y, x] : [x, y]
  return { x: axes.x0 + axes.sx * a, y: axes.y0 + axes.sy * b }
}

/** The point of the work, mm in screen order, that lies under a point of the screen. */
export function workPoint(part: Part, view: View, x: number, y: number): Point {
  const axes = axesOf(part, view)
  return { x: (x - axes.x0) / axes.sx, y: (y - axes.y0) / axes.sy }
}

/**
 * The pixel rectangle that a cell covers, for repainting it alone. `grow`: how much larger than its place its bead may
 * be.
 */
export function rectOfCell(part: Part, view: View, c: number, r: number, grow = 1): PixelRect {
  const box = halfAt(part, c, r)
  const half = view.lie === 'level' ? { x: box.y, y: box.x } : box
  const middle = screenPoint(part, view, c, r)
  const left = middle.x - half.x * grow * view.scale
  const top = middle.y - half.y * grow * view.scale
  const x = Math.floor(left)
  const y = Math.floor(top)
  return {
    x,
    y,
    width: Math.ceil(left + 2 * half.x * grow * view.scale) - x + 1,
    height: Math.ceil(top + 2 * half.y * grow * view.scale) - y + 1,
  }
}
