import { z } from 'zod'
import { problem } from '../../problem'
import { plainNumber, showNumber } from '../../units/length'
import type { Place, Site } from '../lattice'
import { meeting, nominalExtent, type Work } from '../technique'
import type { Stitch } from '../stitch'
import { reader, startField, startSide, ROW_BY_ROW, toAndFro } from './setting'

const settings = z.strictObject({
  start: startSide,
  arc: z.enum(['3', '5', '7']).default('5').describe('Beads in an arc; the middle one is the joint'),
  open: z.enum(['narrow', 'square', 'wide']).default('square').describe('How far the net is drawn open'),
})
const read = reader(settings)

/** Angle of the threads against the length of the work, degrees. */
const OPEN = { narrow: 30, square: 45, wide: 60 } as const

/**
 * The mesh: beads an arc, from joint to joint across (`pitch`) and along (`drop`), mm. A leg of an arc is as long as
 * its beads on the thread.
 */
function mesh({ bead, settings: own }: Pick<Work, 'bead' | 'settings'>) {
  const { arc, open } = read(own)
  const beads = Number(arc)
  const leg = ((beads + 1) / 2) * bead.l
  const turn = (OPEN[open] * Math.PI) / 180
  return {
    beads,
    side: (beads - 1) / 2,
    degrees: OPEN[open],
    pitch: 2 * leg * Math.sin(turn),
    drop: leg * Math.cos(turn),
  }
}

/** Arcs of the work; of those that are laid, each that holds a bead. */
function arcsOf({ rows, columns, laid }: Work, beads: number): number {
  if (!laid) return (rows * columns) / beads
  let arcs = 0
  for (let r = 0; r < rows; r++) {
    for (let a = 0; a * beads < laid.across; a++)
      if (Array.from({ length: beads }, (_, j) => a * beads + j).some((c) => laid.holds(c, r))) arcs++
  }
  return arcs
}

/**
 * Arcs of 3, 5 or 7 beads that hang between joints; the middle bead of each arc is a joint of the next row. Columns
 * run through the arcs: `beads` of them for each. Even rows lie half an arc aside; their edge arc is the turn.
 */
export const netting: Stitch = {
  id: 'netting',
  family: 'weave',
  form: 'flat',
  name: 'Netting',
  summary: 'Open mesh of arcs with 3, 5 or 7 beads; the middle bead of each is a joint.',
  settings,
  fields: [
    {
      key: 'arc',
      label: 'Beads in an arc',
      help: 'The middle one is the joint that the next row passes.',
      kind: 'choice',
      choices: [
        { value: '3', label: '3' },
        { value: '5', label: '5' },
        { value: '7', label: '7' },
      ],
    },
    {
      key: 'open',
      label: 'Drawn open',
      help: 'A net that is drawn wide is shorter.',
      kind: 'choice',
      choices: [
        { value: 'narrow', label: 'narrow' },
        { value: 'square', label: 'square' },
        { value: 'wide', label: 'wide' },
      ],
    },
    startField('Odd rows run from the', 'Even rows run back. Choose right to mirror the work.'),
  ],
  repeatRows: 2,

  lattice(work) {
    const { beads, side, degrees, pitch, drop } = mesh(work)
    const { bead } = work
    const sites: Site[] = []
    const touching: Place[][] = []
    const mirrored = read(work.settings).start === 'right'
    for (const aside of [0, 1]) {
      // Mirrored work puts the other rows aside.
      const half = aside === (mirrored ? 0 : 1)
      for (let j = 0; j < beads; j++) {
        const fromJoint = j - side
        sites.push({
          dx: (pitch * (j + 1)) / (beads + 1) - (pitch * j) / beads + (half ? pitch / 2 : 0),
          dy: (-drop * Math.abs(fromJoint)) / (side + 1),
          turnDegrees: fromJoint === 0 ? 90 : fromJoint < 0 ? -degrees : degrees,
        })
        const near: Place[] = []
        if (j > 0) near.push({ c: -1, r: 0 })
        else near.push({ c: side - (half ? 0 : beads), r: -1 })
        if (j < beads - 1) near.push({ c: 1, r: 0 })
        else near.push({ c: side - (beads - 1) + (half ? beads : 0), r: -1 })
        // The joint holds the ends of two arcs of the next row.
        if (j === side)
          near.push({ c: beads - 1 - side - (half ? 0 : beads), r: 1 }, { c: (half ? beads : 0) - side, r: 1 })
        touching.push(near)
      }
    }
    return {
      pitchX: pitch / beads,
      pitchY: drop,
      originX: bead.d / 2,
      originY: drop + bead.l / 2,
      period: { columns: beads, rows: 2 },
      sites,
      touching,
      beadX: bead.d,
      beadY: bead.l,
      hole: 'along',
    }
  },
  extent(work) {
    const { pitch, drop, beads } = mesh(work)
    return nominalExtent(netting.lengthOf(work), netting.widthOf(work), work.bead, {
      lengthFormula: `${work.rows} rows × ${showNumber(drop, 2)} mm`,
      widthFormula: `(${work.columns / beads} arcs + ½) × ${showNumber(pitch, 2)} mm`,
    })
  },
  lengthOf: (work) => work.rows * mesh(work).drop,
  rowsFor: (lengthMm, work) => lengthMm / mesh(work).drop,
  widthOf(work) {
    const { pitch, beads } = mesh(work)
    return (work.columns / beads + 0.5) * pitch
  },
  columnsFor(widthMm, work) {
    const { pitch, beads } = mesh(work)
    return (widthMm / pitch - 0.5) * beads
  },
  beads: ({ columns, rows }) => columns * rows,

  /** (k + 1) l an arc: through its k beads and one joint. */
  path(work) {
    const { beads } = mesh(work)
    const arcs = arcsOf(work, beads)
    return {
      passes: 2,
      runs: [
        {
          id: 'thread',
          name: 'Thread',
          count: 1,
          joined: true,
          lengthMm: arcs * (beads + 1) * work.bead.l,
          formula: `${plainNumber(arcs)} arcs × (${beads} + 1) × ${work.bead.l} mm`,
        },
      ],
    }
  },
  join: ({ rows }) =>
    meeting(
      rows % 2 === 0
        ? 'Lace the joints of the last row into the arcs of the first.'
        : 'Work one row more or one less: with an even number of rows the arcs of both ends meet. Then lace the ' +
            'last joints into the first row.',
    ),

  ...ROW_BY_ROW,
  workingRow: (i, { columns, settings: own }) => toAndFro(i, columns, read(own).start),

  nearestColumns(columns, own) {
    const k = Number(read(own).arc)
    return Math.max(k, k * Math.round(columns / k))
  },
  check({ columns, settings: own }) {
    const k = Number(read(own).arc)
    return columns % k === 0
      ? []
      : [
          problem(
            'columns-arc',
            'columns',
            `Arcs of ${k} beads need a multiple of ${k} beads across; ${columns} is not. Take ` +
              `${Math.max(k, columns - (columns % k))} or ${columns - (columns % k) + k}.`,
          ),
        ]
  },
}
