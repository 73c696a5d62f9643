import { keyOf } from '../grid/key'
import { freeDrawing, type FreeDrawing, type PlacedBead } from './drawing'
import { beadCentre, halfBox, siteOf, type Lattice, type Point } from './lattice'

/** A grid that is sewn round a ring, and how large it is. */
interface Bent {
  readonly lattice: Lattice
  readonly columns: number
  readonly rows: number
  readonly voids: ReadonlySet<number>
  /** Radius that its first row lies on, mm. */
  readonly radiusMm: number
}

/**
 * A flat grid laid round the outside of a ring: its first row on the ring, its middle at the lowest point, columns as
 * far apart on the ring as they are wide, so that further rows open a little. Beads keep their size.
 */
export function bentDrawing({ lattice, columns, rows, voids, radiusMm }: Bent): FreeDrawing {
  let [left, right, top] = [Infinity, -Infinity, Infinity]
  const flat: { readonly key: number; readonly at: Point; readonly turn: number }[] = []
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const key = keyOf(columns, c, r)
      if (voids.has(key)) continue
      const at = beadCentre(lattice, c, r)
      const turn = siteOf(lattice, c, r).turnDegrees
      const half = halfBox(lattice, turn)
      left = Math.min(left, at.x - half.x)
      right = Math.max(right, at.x + half.x)
      top = Math.min(top, at.y - half.y)
      flat.push({ key, at, turn })
    }
  const middle = (left + right) / 2
  const placed = flat.map(({ key, at, turn }): PlacedBead => {
    const angle = (at.x - middle) / radiusMm
    const far = radiusMm + at.y - top
    return {
      key,
      x: far * Math.sin(angle),
      y: far * Math.cos(angle),
      turnDegrees: turn - (angle * 180) / Math.PI,
    }
  })
  const usual = { beadX: lattice.beadX, beadY: lattice.beadY }
  const box = { left: 0, right: 0, top: radiusMm, bottom: radiusMm }
  for (const { x, y, turnDegrees } of placed) {
    const half = halfBox(usual, turnDegrees)
    box.left = Math.min(box.left, x - half.x)
    box.right = Math.max(box.right, x + half.x)
    box.top = Math.min(box.top, y - half.y)
    box.bottom = Math.max(box.bottom, y + half.y)
  }
  const bead = lattice.hole === 'across' ? { l: usual.beadX, d: usual.beadY } : { l: usual.beadY, d: usual.beadX }
  return freeDrawing({
    placed: placed.map((p) => ({ ...p, x: p.x - box.left, y: p.y - box.top })),
    widthMm: box.right - box.left,
    lengthMm: box.bottom - box.top,
    bead,
    hole: lattice.hole,
    hungAt: { x: 0 - box.left, y: radiusMm - box.top },
  })
}
