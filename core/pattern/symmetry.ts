import { linesWord } from '../piece/nature'
import { modulo } from '../modulo'
import { keyOf, placeOfKey } from '../grid/key'
import type { Laying } from '../piece/edit'
import { columnsOf, isInside, locateRow, sectionStart, type Part, type SectionName } from '../piece/piece'
import { bad, good, problem, type Result } from '../problem'
import { beadNear, type FreeDrawing } from '../technique/drawing'
import { beadCentre, nearestPlace, siteOf, type Lattice, type Place } from '../technique/lattice'
import { freeOf, latticeOf } from '../piece/drawing'

/**
 * Live symmetry: what is laid in one place is laid in its images too. It obeys the lattice: an image is a bead, never
 * a gap.
 */
export const SYMMETRIES = ['none', 'across', 'along', 'both', 'turning'] as const

export type SymmetryKind = (typeof SYMMETRIES)[number]

/** A turn-over of the plane: x → 2·x0 − x and / or y → 2·y0 − y, mm; null leaves that axis as it is. */
interface Turnover {
  readonly x0: number | null
  readonly y0: number | null
}

const NEAR = 1e-6

/** Where a bead comes to lie, if it lies on a bead then; null if in a gap. */
function imageOf(lattice: Lattice, { x0, y0 }: Turnover, c: number, r: number): Place | null {
  const { x, y } = beadCentre(lattice, c, r)
  const to = { x: x0 === null ? x : 2 * x0 - x, y: y0 === null ? y : 2 * y0 - y }
  const place = nearestPlace(lattice, to)
  const there = beadCentre(lattice, place.c, place.r)
  return Math.abs(there.x - to.x) < NEAR && Math.abs(there.y - to.y) < NEAR ? place : null
}

/** Whether every bead of one period lands on a bead: then all do. */
function isExact(lattice: Lattice, turnover: Turnover, { c, r }: Place): boolean {
  for (let i = 0; i < lattice.period.columns; i++)
    for (let j = 0; j < lattice.period.rows; j++) if (!imageOf(lattice, turnover, c + i, r + j)) return false
  return true
}

/** Turnover lines halfway between beads on one axis, nearest to `middle` first. */
function candidates(values: readonly number[], middle: number): number[] {
  const out = new Set<number>()
  for (const a of values) for (const b of values) out.add(Math.round(((a + b) / 2) * 1e6) / 1e6)
  return [...out].sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle) || a - b)
}

/** More than this many lines are not tried: a lattice without such a symmetry is told apart long before. */
const MOST_TRIED = 64

const found = new WeakMap<Lattice, Map<string, Turnover | null>>()

/**
 * The turnover of the lattice nearest to the middle of a section: of all lines halfway between beads, the first that
 * carries every bead onto a bead. Null if the lattice has none.
 */
function turnoverFor(part: Part, kind: 'across' | 'along' | 'turning', first: number, rows: number): Turnover | null {
  const lattice = latticeOf(part)
  const columns = columnsOf(part)
  // Worked out once for all sections that begin alike, and moved along: so every copy of a repeat gets the same lines.
  const begins = first % lattice.period.rows
  const key = `${kind} ${columns} ${begins} ${rows}`
  let known = found.get(lattice)
  if (!known) {
    known = new Map()
    found.set(lattice, known)
  }
  if (!known.has(key)) known.set(key, search(lattice, kind, columns, begins, rows))
  const turnover = known.get(key)!
  return (
    turnover && { x0: turnover.x0, y0: turnover.y0 === null ? null : turnover.y0 + (first - begins) * lattice.pitchY }
  )
}

function search(
  lattice: Lattice,
  kind: 'across' | 'along' | 'turning',
  columns: number,
  first: number,
  rows: number,
): Turnover | null {
  const { period } = lattice
  const around = (middle: number, reach: number) =>
    Array.from({ length: 2 * reach + 1 }, (_, k) => Math.floor(middle) - reach + k)
  const xs: number[] = []
  for (const c of around((columns - 1) / 2, Math.min(period.columns, 16)))
    for (let j = 0; j < period.rows; j++) xs.push(lattice.originX + c * lattice.pitchX + siteOf(lattice, c, j).dx)
  const ys: number[] = []
  for (const r of around(first + (rows - 1) / 2, Math.min(period.rows, 16)))
    for (let i = 0; i < Math.min(period.columns, 16); i++)
      ys.push(lattice.originY + r * lattice.pitchY + siteOf(lattice, i, r).dy)
  const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length
  const offX = mean(lattice.sites.map((s) => s.dx))
  const offY = mean(lattice.sites.map((s) => s.dy))
  const middleX = lattice.originX + ((columns - 1) / 2) * lattice.pitchX + offX
  const middleY = lattice.originY + (first + (rows - 1) / 2) * lattice.pitchY + offY
  const linesX = kind === 'along' ? [null] : candidates(xs, middleX).slice(0, MOST_TRIED)
  const linesY = kind === 'across' ? [null] : candidates(ys, middleY).slice(0, MOST_TRIED)
  const pairs = linesX.flatMap((x0) => linesY.map((y0) => ({ x0, y0 })))
  const off = ({ x0, y0 }: Turnover) =>
    (x0 === null ? 0 : Math.abs(x0 - middleX) / lattice.pitchX) +
    (y0 === null ? 0 : Math.abs(y0 - middleY) / lattice.pitchY)
  const at = { c: Math.floor(columns / 2), r: first }
  return (
    pairs
      .sort((a, b) => off(a) - off(b))
      .slice(0, 4 * MOST_TRIED)
      .find((t) => isExact(lattice, t, at)) ?? null
  )
}

interface Symmetry {
  /**
   * Where else a bead at a place is laid; places outside are left out. Positions of a repeat run on into its
   * neighbouring copies.
   */
  images(place: Place): Place[]
  /** The turnovers, for drawing the lines: mm of the work; null for an axis that is not turned. */
  readonly lines: readonly Turnover[]
}

const NAMES = { across: 'mirror across', along: 'mirror along', turning: 'half turn' } as const

/**
 * The symmetry of a kind for the section in which `row` lies. Inside a repeat it is that of the endless repeat, so
 * every copy is symmetric; a problem says which symmetry the stitch has not.
 */
export function symmetryOf(part: Part, kind: SymmetryKind, row: number): Result<Symmetry> {
  if (kind === 'none') return good({ images: () => [], lines: [] })
  const free = freeOf(part)
  if (free) return freeSymmetry(part, free, kind)
  const lattice = latticeOf(part)
  const { section, copy } = locateRow(part, row)
  const first = sectionStart(part, section, copy)
  const rows = part[section].rows
  const cyclic = section === 'repeat' && rows % lattice.period.rows === 0
  const turnovers: Turnover[] = []
  for (const one of kind === 'both' ? (['across', 'along'] as const) : [kind]) {
    const turnover = turnoverFor(part, one, first, rows)
    if (!turnover)
      return bad(
        problem('no-symmetry', 'symmetry', `This stitch has no ${NAMES[one]}: its beads would fall into gaps.`),
      )
    turnovers.push(turnover)
  }
  if (kind === 'both') turnovers.push({ x0: turnovers[0]!.x0, y0: turnovers[1]!.y0 })
  const columns = columnsOf(part)
  const brought = (place: Place): Place | null => {
    const c = lattice.round ? modulo(place.c, columns) : place.c
    const r = cyclic ? first + modulo(place.r - first, rows) : place.r
    return r >= first && r < first + rows && isInside(part, { c, r }) ? { c, r } : null
  }
  return good({
    lines: turnovers,
    images(place) {
      const out: Place[] = []
      for (const turnover of turnovers) {
        const image = imageOf(lattice, turnover, place.c, place.r)
        const there = image && brought(image)
        if (there) out.push(there)
      }
      return out
    },
  })
}

/** A bead and its image may lie so far apart, in beads: what lies freely is laid by formulas, not on a raster. */
const NEAR_BEAD = 0.05

const freeFound = new WeakMap<FreeDrawing, Map<string, boolean>>()

/** Where a bead that lies freely comes to lie, by its place in the lists of the drawing; −1 if on no bead. */
function freeImage(free: FreeDrawing, { x0, y0 }: Turnover, k: number): number {
  const to = {
    x: x0 === null ? free.xs[k]! : 2 * x0 - free.xs[k]!,
    y: y0 === null ? free.ys[k]! : 2 * y0 - free.ys[k]!,
  }
  const found = beadNear(free, to)
  const near = NEAR_BEAD * Math.min(free.beadX, free.beadY)
  return found >= 0 && Math.hypot(free.xs[found]! - to.x, free.ys[found]! - to.y) <= near ? found : -1
}

const middleOf = (values: Float64Array): number =>
  (values.reduce((a, b) => Math.min(a, b), Infinity) + values.reduce((a, b) => Math.max(a, b), -Infinity)) / 2

/** The symmetry of lines that lie freely: about the middle of the whole work, where every bead falls on a bead. */
function freeSymmetry(part: Part, free: FreeDrawing, kind: Exclude<SymmetryKind, 'none'>): Result<Symmetry> {
  const middle = { x: middleOf(free.xs), y: middleOf(free.ys) }
  const across = { x0: middle.x, y0: null }
  const along = { x0: null, y0: middle.y }
  const turning = { x0: middle.x, y0: middle.y }
  const turnovers = { across: [across], along: [along], turning: [turning], both: [across, along, turning] }[kind]
  const known = freeFound.get(free) ?? new Map<string, boolean>()
  freeFound.set(free, known)
  if (!known.has(kind))
    known.set(
      kind,
      turnovers.every((turnover) => free.keys.every((_, k) => freeImage(free, turnover, k) >= 0)),
    )
  if (!known.get(kind))
    return bad(
      problem(
        'no-symmetry',
        'symmetry',
        `These ${linesWord(part)} have no ${kind === 'both' ? 'two mirrors' : NAMES[kind]}: some bead ` +
          'would fall on none. Make them alike on both sides first.',
      ),
    )
  const columns = columnsOf(part)
  return good({
    lines: turnovers,
    images({ c, r }) {
      const k = free.indexOf(keyOf(columns, c, r))
      return k < 0 ? [] : turnovers.map((t) => placeOfKey(columns, free.keys[freeImage(free, t, k)]!))
    },
  })
}

/** The same cell in the first copy of a repeat: there the stitch has every bead, at the end of the work it may not. */
function firstCopy(part: Part, { c, r }: Place): Place {
  if (freeOf(part)) return { c, r }
  const { section, copy } = locateRow(part, r)
  return section === 'repeat' ? { c, r: r - copy * part.repeat.rows } : { c, r }
}

/** A laying with its images. What is laid at a place itself stands before any image that falls there. */
export function withImages(part: Part, laying: Laying, kind: SymmetryKind): Laying {
  if (kind === 'none' || laying.size === 0) return laying
  const columns = columnsOf(part)
  const out = new Map<number, number>()
  const known = new Map<SectionName, Symmetry>()
  for (const [key, number] of laying) {
    const place = firstCopy(part, placeOfKey(columns, key))
    const { section } = locateRow(part, place.r)
    if (!known.has(section)) {
      const symmetry = symmetryOf(part, kind, place.r)
      if (!symmetry.ok) return laying
      known.set(section, symmetry.value)
    }
    for (const image of known.get(section)!.images(place)) out.set(keyOf(columns, image.c, image.r), number)
  }
  for (const [key, number] of laying) out.set(key, number)
  return out
}
