import { SEEN_TILT_DEGREES, tiltDegrees, type Pull } from '../hang/tilt'
import { centreOf } from '../piece/drawing'
import { drawnSize } from '../piece/drawn-size'
import { hangingOn, layOut, partsWith, turned, type Placed } from '../piece/joint'
import {
  beadOf,
  columnsOf,
  fittedPart,
  numberAt,
  rowsOf,
  techniqueOf,
  workOf,
  type Part,
  type Piece,
} from '../piece/piece'
import { beadOfNumber } from '../piece/sizes'
import type { Finding } from '../technique/technique'
import { plainNumber } from '../units/length'
import type { Point } from '../technique/lattice'
import { fitKindOf } from '../wear/kind'

/** More beads than hang from an ear or a neck are not weighed one by one. */
const MOST_WEIGHED = 20_000

const isWorn = (part: Part): boolean => techniqueOf(part).apart?.({ settings: part.settings }) ?? false

/** Every bead of a part, g, where it lies in the whole, mm. */
function beadsOf({ part, turn, x, y, width, length }: Placed): Pull[] {
  const size = drawnSize(part)
  const out: Pull[] = []
  for (let r = 0; r < rowsOf(part); r++)
    for (let c = 0; c < columnsOf(part); c++) {
      const number = numberAt(part, c, r)
      if (number === 0) continue
      const at = centreOf(part, c, r)
      const off = turned({ x: at.x - size.width / 2, y: at.y - size.length / 2 }, turn)
      const grams = 1 / beadOfNumber(part, number).perGram
      out.push({ grams, x: x + width / 2 + off.x, y: y + length / 2 + off.y })
    }
  return out
}

/** What a part weighs besides its beads, g, in its middle. */
function bought({ part, x, y, width, length }: Placed): Pull[] {
  const grams = techniqueOf(part).grams?.(workOf(part)) ?? 0
  return grams > 0 ? [{ grams, x: x + width / 2, y: y + length / 2 }] : []
}

/** Where a part hangs by itself, mm: the loop of a finding, or the middle of its uppermost beads. */
function hookOf(placed: Placed): Point {
  const beads = beadsOf(placed)
  const y = Math.min(...beads.map((b) => b.y))
  const { l, d } = beadOf(placed.part)
  const upper = beads.filter((b) => b.y < y + STAGGER * Math.max(l, d))
  return upper.length === 0
    ? { x: placed.x + placed.width / 2, y: placed.y }
    : { x: upper.reduce((sum, b) => sum + b.x, 0) / upper.length, y: placed.y }
}
/** Beads that lie no lower than this share of a bead stand in one row, a staggered one among them. */
const STAGGER = 0.6

/**
 * What pulls at a piece that hangs by one loop, as it is seen hanging, from that loop: beads and findings that are
 * stiff with it where they lie, strands where they begin, and what hangs on rings where these hang. Null of one that
 * hangs otherwise.
 */
export function pullsOf(piece: Pick<Piece, 'fit' | 'parts'>, root: Part): Pull[] | null {
  const { parts } = piece
  const holder = root.on ? parts.find((p) => p.id === root.on!.part) : undefined
  // Strands that hang from nothing stiff hang each by itself.
  if (isWorn(root) || techniqueOf(root).hangs || (holder && (!isWorn(holder) || (root.on!.holes.length ?? 0) > 1)))
    return null
  const own = partsWith(
    parts.filter((p) => p !== holder),
    root,
  ).filter((p) => !isWorn(p))
  if (own.reduce((sum, p) => sum + columnsOf(p) * rowsOf(p), 0) > MOST_WEIGHED) return null
  const { placed } = layOut(own, root, drawnSize)
  const byId = new Map(placed.map((p) => [p.part.id, p]))
  const hook = hookOf(byId.get(root.id)!)
  const out: Pull[] = []
  /** `loose`: where the ring hangs that a part and all below it pull at; null while all is stiff. */
  const add = (part: Part, loose: Point | null): void => {
    const at = byId.get(part.id)!
    const strands = techniqueOf(part).hangs === true
    const pulls = [...beadsOf(at), ...bought(at)]
    const top = at.y + (drawnSize(part).hungAt?.y ?? 0)
    out.push(...pulls.map((p) => (loose ? { ...p, ...loose } : strands ? { ...p, y: top } : p)))
    for (const child of hangingOn(own, part.id)) {
      const below = byId.get(child.id)!
      const ring = child.on!.link ? { x: below.x + below.width / 2, y: below.y - child.on!.link.mm } : null
      add(child, loose ?? ring)
    }
  }
  add(root, null)
  // As it is seen hanging, places of a part run from right to left.
  return out.map((p) => ({ grams: p.grams, x: hook.x - p.x, y: p.y - hook.y }))
}

/** The uppermost part that a part hangs from, but what it is worn on. */
function stiffRoot(parts: readonly Part[], part: Part): Part {
  const holder = part.on ? parts.find((p) => p.id === part.on!.part) : undefined
  return holder && !isWorn(holder) ? stiffRoot(parts, holder) : part
}

/** A piece that hangs askew, since one of its sides is heavier: said of the part that it is fitted by. */
export function askewFindings(part: Part, piece: Pick<Piece, 'fit' | 'parts'>): Finding[] {
  if (!fitKindOf(piece.fit.kind).hangs || fittedPart(piece).id !== part.id) return []
  const pulls = pullsOf(piece, stiffRoot(piece.parts, part))
  if (!pulls) return []
  const degrees = tiltDegrees(pulls)
  return Math.abs(degrees) <= SEEN_TILT_DEGREES
    ? []
    : [
        {
          code: 'hangs-askew',
          weight: 'note',
          says:
            `The ${degrees > 0 ? 'right' : 'left'} side is heavier: on one loop it hangs ` +
            `${plainNumber(Math.round(Math.abs(degrees) * 10) / 10)}° askew. Let it hang from two loops, or make ` +
            'its sides alike.',
        },
      ]
}
