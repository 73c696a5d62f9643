import type { Held, HeldPlace } from '../technique/held'
import type { Point } from '../technique/lattice'
import { centreOf, halfAt } from './drawing'
import { drawnSize } from './drawn-size'
import { hangingOn, heldAt, holdsOf, onSide, OUT, turned, type Turn } from './joint'
import { columnsOf, numberAt, partRow, rowsOf, techniqueOf, type Part } from './piece'
import type { Joint, Side } from './schema'
import { beadOfNumber } from './sizes'

/**
 * Parts that know what they hang on: strands hang from the beads of an edge, a grid that is sewn round a ring is bent.
 * Like the sizes of beads it is made from the piece whenever that is read or changed, and is never kept with it.
 */

/** Places of a side that are reckoned with at most. */
const MOST_PLACES = 2000

/** How a side is turned so that its way out runs down. */
const DOWN: Record<Side, Turn> = { end: 0, right: 1, start: 2, left: 3 }

interface EdgeCell {
  readonly c: number
  readonly r: number
  /** Which line from the edge inward it lies in. */
  readonly deep: number
}

/** The outermost bead of each line across a side, as cells; the outermost beads of an edge that slopes among them. */
function edgeCells(part: Part, side: Side): EdgeCell[] {
  const rows = rowsOf(part)
  const out: EdgeCell[] = []
  if (side === 'left' || side === 'right') {
    for (let r = 0; r < Math.min(MOST_PLACES, rows); r++) {
      const line = partRow(part, r)
      const c = side === 'left' ? line.findIndex((n) => n !== 0) : line.findLastIndex((n) => n !== 0)
      if (c >= 0 && numberAt(part, c, r) !== 0) out.push({ c, r, deep: side === 'left' ? c : line.length - 1 - c })
    }
    return out
  }
  // From the edge inward, until every column has shown its outermost bead.
  const left = new Set(Array.from({ length: Math.min(MOST_PLACES, columnsOf(part)) }, (_, c) => c))
  for (let deep = 0; deep < Math.min(MOST_PLACES, rows) && left.size > 0; deep++) {
    const r = side === 'start' ? deep : rows - 1 - deep
    const line = partRow(part, r)
    for (const c of left) {
      if (!line[c] || numberAt(part, c, r) === 0) continue
      out.push({ c, r, deep })
      left.delete(c)
    }
  }
  return out.sort((a, b) => a.c - b.c)
}

/** Share of a bead’s width that a place further in must lie beside those further out, so that a strand passes them. */
const BESIDE = 0.9

/** Places without those that others further out lie before: of staggered rows only the outer one, and its slopes. */
function open(cells: readonly (HeldPlace & { readonly deep: number; readonly wide: number })[]): HeldPlace[] {
  const out: (typeof cells)[number][] = []
  for (const cell of cells.toSorted((a, b) => a.deep - b.deep))
    if (out.every((o) => o.deep === cell.deep || Math.abs(o.x - cell.x) >= BESIDE * cell.wide)) out.push(cell)
  return out.map(({ x, y, bead }) => ({ x, y, bead }))
}

/** Places by the part, which never changes: many may hang on one. */
const places = new WeakMap<Part, Map<Side, readonly HeldPlace[]>>()

/** Places of a side, from its middle, mm; turned so that its way out runs down. */
export function placesAlong(part: Part, side: Side): readonly HeldPlace[] {
  const known = places.get(part) ?? new Map<Side, readonly HeldPlace[]>()
  places.set(part, known)
  let found = known.get(side)
  if (!found) {
    found = foundPlaces(part, side)
    known.set(side, found)
  }
  return found
}

function foundPlaces(part: Part, side: Side): HeldPlace[] {
  const turn = DOWN[side]
  const size = drawnSize(part)
  const middle = onSide(side, 0.5, size)
  const own = holdsOf(part, side)
  const all: HeldPlace[] = techniqueOf(part).holds
    ? (own?.places ?? []).map(({ onEdge, ...p }) => ({
        ...turned(p, turn),
        bead: null,
        ...(onEdge ? { onEdge } : {}),
      }))
    : open(
        edgeCells(part, side).map(({ c, r, deep }) => {
          const { x, y } = centreOf(part, c, r)
          const half = halfAt(part, c, r)
          const out = OUT[side]
          const edge: Point = {
            x: x + out.x * half.x - size.width / 2 - middle.x,
            y: y + out.y * half.y - size.length / 2 - middle.y,
          }
          const wide = Math.abs(out.x) > 0 ? 2 * half.y : 2 * half.x
          return { ...turned(edge, turn), bead: beadOfNumber(part, numberAt(part, c, r)), deep, wide }
        }),
      )
  return all.sort((a, b) => b.x - a.x)
}

/** What has been worked out, by the part that holds: the same answer is the same value. */
const known = new Map<string, Held>()
const MOST_KNOWN = 60

/** Where links end that a part hangs by, from the middle of them, mm; turned so that they run down. */
function linkEnds(on: Joint, parent: Part): HeldPlace[] {
  const points = heldAt(on, parent, drawnSize(parent)).map((p) => turned(p, DOWN[on.at]))
  const middle = points.reduce((sum, p) => sum + p.x, 0) / points.length
  return points.map((p): HeldPlace => ({ x: p.x - middle, y: 0, bead: null })).sort((a, b) => b.x - a.x)
}

function heldBy(parent: Part, on: Joint): Held {
  const held: Held = on.link
    ? { places: linkEnds(on, parent), bentMm: null }
    : { places: placesAlong(parent, on.at), bentMm: holdsOf(parent, on.at)?.bentMm ?? null }
  const text = JSON.stringify([
    held.bentMm,
    held.places.map(({ x, y, bead, onEdge }) => [x, y, bead?.id ?? '', onEdge ?? false]),
  ])
  const same = known.get(text)
  if (same) return same
  if (known.size >= MOST_KNOWN) known.clear()
  known.set(text, held)
  return held
}

/** What a part hangs on, where it must know it. */
function heldOf(part: Part, parent: Part | undefined): Held | undefined {
  const { on } = part
  if (!on || !parent || on.by !== 'start') return undefined
  const bends = holdsOf(parent, on.at)?.bentMm ?? null
  // Something on a ring or a chain hangs free of what is above it.
  return techniqueOf(part).hangs === true || (bends !== null && on.link === null) ? heldBy(parent, on) : undefined
}

/** A piece whose parts know what they hang on; itself where they do, and where none must. */
export function hung<P extends { readonly parts: readonly Part[] }>(piece: P): P {
  if (piece.parts.every((p) => !p.on && !p.held)) return piece
  const parts = new Map(piece.parts.map((p) => [p.id, p]))
  // From what holds down to what hangs, each after the one that it hangs on.
  const seen = new Set<string>()
  const visit = (id: string): void => {
    if (seen.has(id)) return
    seen.add(id)
    const part = parts.get(id)!
    if (part.on && parts.has(part.on.part)) visit(part.on.part)
    const held = heldOf(part, part.on ? parts.get(part.on.part) : undefined)
    if (held === part.held) return
    const { held: _, ...rest } = part
    parts.set(id, held ? { ...rest, held } : rest)
  }
  for (const { id } of piece.parts) visit(id)
  return piece.parts.every((p) => parts.get(p.id) === p)
    ? piece
    : { ...piece, parts: piece.parts.map((p) => parts.get(p.id)!) }
}

/** Strands and dangles that hang on a part directly. */
export const strandsOn = (parts: readonly Part[], id: string): Part[] =>
  hangingOn(parts, id).filter((p) => techniqueOf(p).hangs === true)
