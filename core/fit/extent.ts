import { isRound } from '../piece/nature'
import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { lineAt, type Lines } from '../grid/lines'
import { freeOf, latticeOf } from '../piece/drawing'
import { joinOf } from '../piece/join'
import { laidOf, laidRows, laidWork } from '../piece/laid'
import { basisOf, beadOf, SECTIONS, techniqueOf, type Part, type Piece } from '../piece/piece'
import { cordScale } from '../tally/cords'
import { NOMINAL_SPREAD, rangeOf, type Extent, type Range } from '../technique/technique'
import { plainNumber, showNumber } from '../units/length'
import { handFor, type Ground, type Hand } from './gauge'

/** What beads of other sizes than the grid's add to the size of the work, mm; negative where they are smaller. */
interface Mixed {
  readonly widerMm: number
  readonly longerMm: number
}

interface Rows {
  readonly widest: number
  readonly longer: number
}

const seen = new WeakMap<Lines, Map<string, Rows>>()

/** The widest row of a section and what its rows add in length: a row is as high as its largest bead. */
function rowsOfSection(cells: Lines, part: Part, tray: readonly TrayBead[]): Rows {
  const { hole } = latticeOf(part)
  const grid = beadOf(part)
  const size = (l: number, d: number) => (hole === 'across' ? { across: l, along: d } : { across: d, along: l })
  const own = size(grid.l, grid.d)
  const more = new Map(
    tray
      .filter((b) => b.spec !== part.spec)
      .map((b) => {
        const spec = requireSpec(b.spec)
        const { across, along } = size(spec.l, spec.d)
        return [b.number, { across: across - own.across, along: along - own.along }]
      }),
  )
  const key = `${part.spec} ${hole} ${[...more].map(([n, m]) => `${n}:${m.across}:${m.along}`).join()}`
  let known = seen.get(cells)
  if (!known) {
    known = new Map()
    seen.set(cells, known)
  }
  let rows = known.get(key)
  if (!rows) {
    let widest = -Infinity
    let longer = 0
    for (let r = 0; r < cells.rows; r++) {
      let wider = 0
      let highest = -Infinity
      for (const number of lineAt(cells, r)) {
        if (number === 0) continue
        const m = more.get(number)
        wider += m?.across ?? 0
        highest = Math.max(highest, m?.along ?? 0)
      }
      if (highest === -Infinity) continue
      widest = Math.max(widest, wider)
      longer += highest
    }
    rows = { widest, longer }
    known.set(key, rows)
  }
  return rows
}

/**
 * What other sizes add, row by row: the width of the work is that of its widest row, and every row is as long as its
 * largest bead. A model for rows that lie side by side (common practice); tilted stitches, squares of beads and nets
 * keep their own figure.
 */
export function mixedSizes(part: Part, tray: readonly TrayBead[]): Mixed {
  const none = { widerMm: 0, longerMm: 0 }
  if (
    !tray.some((b) => b.spec !== part.spec) ||
    laidRows(part) === 0 ||
    // Lines that lie freely know the sizes of their beads themselves.
    freeOf(part) ||
    latticeOf(part).sites.some((s) => s.turnDegrees !== 0)
  )
    return none
  let widest = -Infinity
  let longer = 0
  for (const section of SECTIONS) {
    const times = section === 'repeat' ? part.times : 1
    if (times === 0) continue
    const found = rowsOfSection(part[section], part, tray)
    widest = Math.max(widest, found.widest)
    longer += times * found.longer
  }
  // Round a tube the beads go round: only the length follows.
  const tube = isRound(part)
  return { widerMm: tube || widest === -Infinity ? 0 : widest, longerMm: longer }
}

const moved = ({ least, nominal, most }: Range, by: number): Range => ({
  least: least + by,
  nominal: nominal + by,
  most: most + by,
})

const sign = (mm: number): string => `${mm < 0 ? '−' : '+'} ${Math.abs(Math.round(mm * 10) / 10)} mm`

/** An extent with more (or less) length and width, and words for why; nothing is said where nothing changes. */
function withMore(
  extent: Extent,
  long: { readonly mm: number; readonly says: string },
  wide: { readonly mm: number; readonly says: string },
): Extent {
  const words = (formula: string, { mm, says }: { readonly mm: number; readonly says: string }) =>
    mm === 0 ? formula : `${formula} ${says}`
  return {
    ...extent,
    lengthMm: moved(extent.lengthMm, long.mm),
    widthMm: moved(extent.widthMm, wide.mm),
    lengthFormula: words(extent.lengthFormula, long),
    widthFormula: words(extent.widthFormula, wide),
  }
}

const NOTHING = { mm: 0, says: '' }

/**
 * What joining the ends adds to a part, mm and in words, before the gauge; nothing where a closure opens the piece.
 */
function joining(
  ground: Ground & Partial<Pick<Piece, 'fit' | 'parts'>>,
  part: Part,
): { readonly mm: number; readonly says: string } {
  const join = ground.fit && ground.parts ? joinOf({ fit: ground.fit, parts: ground.parts }, part) : null
  return join ? { mm: join.addsMm, says: join.formula } : NOTHING
}

/**
 * The extent of a part: the stitch's model in nominal figures for what is laid, what beads of other sizes and joined
 * ends add, and the gauge of the hand that makes it, where there is one for this stitch, bead and thread. `ground` is
 * the piece: tray, gauges, thread; with its fit and parts, the size is that of ends joined where nothing closes them.
 */
export function extentOf(ground: Ground & Partial<Pick<Piece, 'fit' | 'parts'>>, part: Part): Extent {
  const { widerMm, longerMm } = mixedSizes(part, ground.tray)
  const whole = techniqueOf(part).extent(laidWork(part))
  // Whatever its edges lack, a bead remains.
  const { l, d } = beadOf(part)
  const atMost = (lacks: number, { least }: Range) => Math.min(lacks, Math.max(0, least - Math.min(l, d)))
  const shortMm = atMost(laidOf(part).shortMm, whole.lengthMm)
  const narrowMm = atMost(laidOf(part).narrowMm, whole.widthMm)
  const laid = withMore(
    whole,
    { mm: 0 - shortMm, says: `− ${plainNumber(shortMm)} mm, since its last rows are not whole` },
    { mm: 0 - narrowMm, says: `− ${plainNumber(narrowMm)} mm, since its edges are not straight` },
  )
  const sized = withMore(
    laid,
    { mm: longerMm, says: `${sign(longerMm)} for beads of other sizes` },
    { mm: widerMm, says: `${sign(widerMm)} for beads of other sizes in the widest row` },
  )
  const mixed = withMore(sized, joining(ground, part), NOTHING)
  const hand = handFor(ground, part)
  const cords = cordScale(part, ground.tray)
  const made = hand ? gauged(mixed, hand, isRound(part)) : mixed
  return cords === 1 ? withPlainEnds(made, part) : thicker(made, cords)
}

/** Ends that are worked without beads, mm, both together; 0 for work that has none. */
export const plainEndsMm = (part: Part): number => techniqueOf(part).growth.plain?.ofMm(part.settings) ?? 0

/**
 * A braid of cords that are thicker or thinner, in the mean, than the one it is reckoned for: everything grows with
 * them.
 */
function thicker(extent: Extent, by: number): Extent {
  const grown = ({ least, nominal, most }: Range): Range => ({
    least: least * by,
    nominal: nominal * by,
    most: most * by,
  })
  const says = ` × ${showNumber(by, 3)} for the thickness of its cords`
  return {
    ...extent,
    lengthMm: grown(extent.lengthMm),
    widthMm: grown(extent.widthMm),
    thicknessMm: extent.thicknessMm * by,
    lengthFormula: `(${extent.lengthFormula})${says}`,
    widthFormula: `(${extent.widthFormula})${says}`,
  }
}

/** Plain ends are added as they are: they are measured, not counted. */
function withPlainEnds(extent: Extent, part: Part): Extent {
  const plain = plainEndsMm(part)
  return plain === 0
    ? extent
    : {
        ...extent,
        lengthMm: moved(extent.lengthMm, plain),
        lengthFormula: `${extent.lengthFormula} + 2 × ${showNumber(plain / 2, 1)} mm plain`,
      }
}

const times = (formula: string, factor: number): string => `(${formula}) × ${showNumber(factor, 3)} by your gauge`

/** The nominal extent as one hand makes it. A tube is as thick as it is wide, so its thickness goes with its width. */
function gauged(extent: Extent, { along, across, spread, swatches }: Hand, tube: boolean): Extent {
  return {
    lengthMm: rangeOf(extent.lengthMm.nominal * along, spread),
    widthMm: rangeOf(extent.widthMm.nominal * across, across === 1 ? NOMINAL_SPREAD : spread),
    thicknessMm: tube ? extent.thicknessMm * across : extent.thicknessMm,
    basis: { kind: 'gauge', spread, swatches },
    lengthFormula: times(extent.lengthFormula, along),
    widthFormula: across === 1 ? extent.widthFormula : times(extent.widthFormula, across),
  }
}

/** How much a part is longer than its nominal model: by the hand that makes it and by the thickness of its cords. */
const scaleOf = (ground: Ground, part: Part): number =>
  (handFor(ground, part)?.along ?? 1) * cordScale(part, ground.tray)

/** Length that one more bead row brings, mm, as the gauge has it. */
export function rowMm(ground: Ground, part: Part): number {
  const work = basisOf(part)
  return (
    (techniqueOf(part).growth.lengthOf({ ...work, rows: 101 }) -
      techniqueOf(part).growth.lengthOf({ ...work, rows: 100 })) *
    scaleOf(ground, part)
  )
}

/**
 * Bead rows (a real number) of beadwork that is exactly `lengthMm`, each counted with what beads of other sizes add,
 * as the gauge has it, and with what its ends lack or joining them adds.
 */
export function rowsForLength(
  ground: Ground & Partial<Pick<Piece, 'fit' | 'parts'>>,
  part: Part,
  lengthMm: number,
): number {
  const technique = techniqueOf(part)
  const work = basisOf(part)
  const nominal =
    Math.max(0, lengthMm - plainEndsMm(part)) / scaleOf(ground, part) + laidOf(part).shortMm - joining(ground, part).mm
  const rows = technique.growth.rowsFor(Math.max(0, nominal), work)
  const added = mixedSizes(part, ground.tray).longerMm
  if (added === 0) return rows
  const perRow = technique.growth.lengthOf({ ...work, rows: 101 }) - technique.growth.lengthOf({ ...work, rows: 100 })
  return (rows * perRow) / (perRow + added / laidRows(part))
}
