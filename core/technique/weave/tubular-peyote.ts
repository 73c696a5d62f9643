import { modulo } from '../../modulo'
import { keyOf } from '../../grid/key'
import { z } from 'zod'
import { problem } from '../../problem'
import { tubeExtent, type Work } from '../technique'
import type { Stitch } from '../stitch'
import { countedPeyote, numbering, NUMBERING_FIELD, peyoteNumbers, peyotePath, peyoteSites, zipped } from './peyote'
import { mirroredKeys, reader, startField, startSide } from './setting'

const settings = z.strictObject({ start: startSide, numbering })
const read = reader(settings)

const START = startField(
  'Rounds run from the',
  'Right-handed weavers mostly work to the right as the chart shows it. Choose right to mirror the work.',
)

const outerMm = ({ columns, bead }: Pick<Work, 'columns' | 'bead'>): number => (columns * bead.l) / Math.PI + bead.d

/** What both tubes share: a round measures N l through the bead centres; the outer diameter is N l / π + d. */
const tube = (
  self: () => Stitch,
): Omit<Stitch, 'id' | 'name' | 'summary' | 'lattice' | 'workingRow' | 'nearestColumns' | 'check' | 'repeatRows'> => ({
  family: 'weave',
  form: 'tube',
  heldBy: 'rows',
  settings,
  fields: [START, NUMBERING_FIELD],
  extent(work) {
    return tubeExtent(self().lengthOf(work), outerMm(work), {
      lengthFormula: `(${work.rows} beads along a column + ½) × ${work.bead.d} mm`,
      widthFormula: `${work.columns} beads × ${work.bead.l} mm ÷ π + ${work.bead.d} mm`,
    })
  },
  lengthOf: ({ rows, bead }) => (rows === 0 ? 0 : (rows + 0.5) * bead.d),
  rowsFor: (lengthMm, { bead }) => Math.max(0, lengthMm / bead.d - 0.5),
  widthOf: outerMm,
  columnsFor: (widthMm, { bead }) => ((widthMm - bead.d) * Math.PI) / bead.l,
  beads: ({ columns, rows }) => columns * rows,
  path: (work) => peyotePath(self(), work, 'rounds'),
  join: zipped,
  workingRows: ({ rows }) => (rows === 0 ? 0 : 2 * rows - 1),
  workingRowOf({ c, r }, { columns, settings: own }) {
    if (r === 0) return 0
    return 2 * r - 1 + modulo(read(own).start === 'left' ? c : columns - 1 - c, 2)
  },
  rowBefore: (i) => i - 2,
  countedRows: countedPeyote,
})

/** Every other column of row r, beginning at column `first` and going round once. */
function everyOther(columns: number, r: number, first: number, count: number): Int32Array {
  const keys = new Int32Array(count)
  for (let k = 0; k < count; k++) keys[k] = keyOf(columns, (first + 2 * k) % columns, r)
  return keys
}

/**
 * Even count: every round has N / 2 beads and ends with a step up through its own first bead, so each round begins one
 * column further than the one before.
 */
export const tubularPeyote: Stitch = {
  ...tube(() => tubularPeyote),
  id: 'peyote-tube',
  name: 'Tubular peyote, even count',
  summary: 'Peyote in rounds of half the count; each round ends with a step up.',
  repeatRows: 1,
  lattice({ bead, settings: own, columns }) {
    return {
      pitchX: bead.l,
      pitchY: bead.d,
      originX: bead.l / 2,
      originY: bead.d / 2,
      ...peyoteSites(columns, 1, read(own).start === 'left', bead.d / 2),
      beadX: bead.l,
      beadY: bead.d,
      hole: 'across',
      round: true,
    }
  },
  workingRow(i, { columns, settings: own }) {
    const fromLeft = read(own).start === 'left'
    const keys =
      i === 0
        ? Int32Array.from({ length: columns }, (_, c) => c)
        : everyOther(columns, Math.floor((i + 1) / 2), (i - 1) % columns, columns / 2)
    return {
      ...peyoteNumbers(i, own),
      direction: fromLeft ? '→' : '←',
      keys: fromLeft ? keys : mirroredKeys(columns, keys),
      ...(i === 0 ? { after: 'join' } : { after: 'step up' }),
    }
  },
  nearestColumns: (columns) => Math.max(4, 2 * Math.round(columns / 2)),
  check({ columns }) {
    return columns % 2 === 0
      ? []
      : [
          problem(
            'columns-odd',
            'columns',
            `Even-count tubular peyote needs an even number of beads round; ${columns} is odd. Take ` +
              `${columns - 1} or ${columns + 1}, or work it as a spiral.`,
          ),
        ]
  },
}

/**
 * Odd count: one spiral without a step up. Bead k of the spiral lies in column 2k mod N and k · d / N along, so the
 * columns rise evenly by half a bead on the way round, and the last column meets the first one row on.
 */
export const spiralPeyote: Stitch = {
  ...tube(() => spiralPeyote),
  id: 'peyote-spiral',
  name: 'Tubular peyote, odd count',
  summary: 'Peyote round and round in one spiral: no step up, and every bead finds its gap.',
  repeatRows: 1,
  climbs: (own) => (read(own).start === 'left' ? 0.5 : -0.5),
  lattice({ bead, settings: own, columns }) {
    const fromLeft = read(own).start === 'left'
    const sites = Array.from({ length: columns }, (_, at) => {
      const c = fromLeft ? at : columns - 1 - at
      return { dx: 0, dy: (c % 2 === 0 ? 0 : bead.d / 2) + (c * bead.d) / (2 * columns), turnDegrees: 0 }
    })
    return {
      pitchX: bead.l,
      pitchY: bead.d,
      originX: bead.l / 2,
      originY: bead.d / 2,
      period: { columns, rows: 1 },
      sites,
      beadX: bead.l,
      beadY: bead.d,
      hole: 'across',
      round: true,
    }
  },
  workingRow(i, { columns, settings: own }) {
    const fromLeft = read(own).start === 'left'
    const r = Math.floor((i + 1) / 2)
    const keys =
      i === 0
        ? Int32Array.from({ length: columns }, (_, c) => c)
        : i % 2 === 1
          ? everyOther(columns, r, 0, (columns + 1) / 2)
          : everyOther(columns, r, 1, (columns - 1) / 2)
    return {
      ...peyoteNumbers(i, own),
      direction: fromLeft ? '→' : '←',
      keys: fromLeft ? keys : mirroredKeys(columns, keys),
      ...(i === 0 ? { after: 'join' } : {}),
    }
  },
  nearestColumns: (columns) => Math.max(5, 2 * Math.round((columns - 1) / 2) + 1),
  check({ columns }) {
    return columns % 2 === 1
      ? []
      : [
          problem(
            'columns-even',
            'columns',
            `A peyote spiral needs an odd number of beads round; ${columns} is even. Take ${columns - 1} or ` +
              `${columns + 1}.`,
          ),
        ]
  },
}
