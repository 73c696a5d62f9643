import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { rowAt, type Cells } from '../grid/cells'
import { latticeOf } from '../pattern/place'
import { beadOf, columnsOf, rowsOf, SECTIONS, techniqueOf, workOf, type Part } from '../piece/piece'
import { cordScale } from '../tally/cords'
import { NOMINAL_SPREAD, rangeOf, type Extent, type Range } from '../technique/technique'
import { showNumber } from '../units/length'
import { handFor, type Ground, type Hand } from './gauge'

/** What beads of other sizes than the grid's add to the size of the work, mm; negative where they are smaller. */
export interface Mixed { readonly widerMm: number, readonly longerMm: number }

interface Rows { readonly widest: number, readonly longer: number }

const seen = new WeakMap<Cells, Map<string, Rows>>()

/** The widest row of a section and what its rows add in length: a row is as high as its largest bead. */
function rowsOfSection(cells: Cells, part: Part, tray: readonly TrayBead[]): Rows {
  const { hole } = latticeOf(part)
  const grid = beadOf(part)
  const size = (l: number, d: number) => (hole === 'across' ? { across: l, along: d } : { across: d, along: l })
  const own = size(grid.l, grid.d)
  const more = new Map(tray.filter(b => b.spec !== part.spec).map((b) => {
    const spec = requireSpec(b.spec)
    const { across, along } = size(spec.l, spec.d)
    return [b.number, { across: across - own.across, along: along - own.along }]
  }))
  const key = `${part.spec} ${hole} ${[...more].map(([n, m]) => `${n}:${m.across}:${m.along}`).join()}`
  let known = seen.get(cells)
  if (!known) { known = new Map(); seen.set(cells, known) }
  let rows = known.get(key)
  if (!rows) {
    let widest = -Infinity
    let longer = 0
    for (let r = 0; r < cells.rows; r++) {
      let wider = 0
      let highest = -Infinity
      for (const number of rowAt(cells, r)) {
        if (number === 0) continue
        const m = more.get(number)
        wider += m?.across ?? 0
        highest = Math.max(highest, m?.along ?? 0)
      }
      widest = Math.max(widest, wider)
      if (highest !== -Infinity) longer += highest
    }
    rows = { widest: cells.rows === 0 ? -Infinity : widest, longer }
    known.set(key, rows)
  }
  return rows
}

/**
 * What other sizes add, row by row: the width of the work is that of its widest row, and every row is as long as its largest bead. A
 * model for rows that lie side by side (common practice); tilted stitches, squares of beads and nets keep their own figure.
 */
export function mixedSizes(part: Part, tray: readonly TrayBead[], rows = rowsOf(part)): Mixed {
  const none = { widerMm: 0, longerMm: 0 }
  if (!tray.some(b => b.spec !== part.spec) || rowsOf(part) === 0 || latticeOf(part).sites.some(s => s.turnDegrees !== 0)) return none
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
  const tube = techniqueOf(part).form === 'tube'
  return { widerMm: tube || widest === -Infinity ? 0 : widest, longerMm: longer * rows / rowsOf(part) }
}

const moved = ({ least, nominal, most }: Range, by: number): Range => ({ least: least + by, nominal: nominal + by, most: most + by })

const sign = (mm: number): string => `${mm < 0 ? '−' : '+'} ${Math.abs(Math.round(mm * 10) / 10)} mm`

/**
 * The extent of a part: the stitch's model in nominal figures, what beads of other sizes add, and the gauge of the hand that makes
 * it, where there is one for this stitch, bead and thread. `ground` is the piece: tray, gauges, thread.
 */
export function extentOf(ground: Ground, part: Part, rows = rowsOf(part)): Extent {
  const extent = techniqueOf(part).extent(workOf(part, rows))
  const { widerMm, longerMm } = mixedSizes(part, ground.tray, rows)
  const mixed: Extent = widerMm === 0 && longerMm === 0
    ? extent
    : {
        ...extent, lengthMm: moved(extent.lengthMm, longerMm), widthMm: moved(extent.widthMm, widerMm),
        lengthFormula: longerMm === 0 ? extent.lengthFormula : `${extent.lengthFormula} ${sign(longerMm)} for beads of other sizes`,
        widthFormula: widerMm === 0 ? extent.widthFormula : `${extent.widthFormula} ${sign(widerMm)} for beads of other sizes in the widest row`,
      }
  const hand = handFor(ground, part)
  const cords = cordScale(part, ground.tray)
  if (cords !== 1) return thicker(hand ? gauged(mixed, hand) : mixed, cords)
  return withPlainEnds(hand ? gauged(mixed, hand) : mixed, part)
}

/** Ends that are worked without beads, mm, both together; 0 for work that has none. */
export const plainEndsMm = (part: Part): number => techniqueOf(part).plain?.ofMm(part.settings) ?? 0

/** A braid of cords that are thicker or thinner, in the mean, than the one it is reckoned for: everything grows with them. */
function thicker(extent: Extent, by: number): Extent {
  const grown = ({ least, nominal, most }: Range): Range => ({ least: least * by, nominal: nominal * by, most: most * by })
  const says = ` × ${showNumber(by, 3)} for the thickness of its cords`
  return {
    ...extent, lengthMm: grown(extent.lengthMm), widthMm: grown(extent.widthMm), thicknessMm: extent.thicknessMm * by,
    lengthFormula: `(${extent.lengthFormula})${says}`, widthFormula: `(${extent.widthFormula})${says}`,
  }
}

/** Plain ends are added as they are: they are measured, not counted. */
function withPlainEnds(extent: Extent, part: Part): Extent {
  const plain = plainEndsMm(part)
  return plain === 0 ? extent : { ...extent, lengthMm: moved(extent.lengthMm, plain), lengthFormula: `${extent.lengthFormula} + 2 × ${showNumber(plain / 2, 1)} mm plain` }
}

const times = (formula: string, factor: number): string => `(${formula}) × ${showNumber(factor, 3)} by your gauge`

/** The nominal extent as one hand makes it. A tube's thickness is its width, and goes with it. */
function gauged(extent: Extent, { along, across, spread, swatches }: Hand): Extent {
  const tube = extent.thicknessMm === extent.widthMm.nominal
  return {
    lengthMm: rangeOf(extent.lengthMm.nominal * along, spread),
    widthMm: rangeOf(extent.widthMm.nominal * across, across === 1 ? NOMINAL_SPREAD : spread),
    thicknessMm: tube ? extent.thicknessMm * across : extent.thicknessMm,
    basis: { kind: 'gauge', spread, swatches },
    lengthFormula: times(extent.lengthFormula, along),
    widthFormula: across === 1 ? extent.widthFormula : times(extent.widthFormula, across),
  }
}

/** Rows (a real number) whose beadwork is exactly `lengthMm`, each counted with what beads of other sizes add and as the gauge has it. */
export function rowsForLength(ground: Ground, part: Part, lengthMm: number): number {
  const technique = techniqueOf(part)
  const work = { columns: columnsOf(part), bead: beadOf(part), settings: part.settings }
  const rows = technique.rowsFor(Math.max(0, lengthMm - plainEndsMm(part)) / (handFor(ground, part)?.along ?? 1) / cordScale(part, ground.tray), work)
  const added = mixedSizes(part, ground.tray).longerMm
  if (added === 0) return rows
  const perRow = technique.lengthOf({ ...work, rows: 101 }) - technique.lengthOf({ ...work, rows: 100 })
  return rows * perRow / (perRow + added / rowsOf(part))
}
