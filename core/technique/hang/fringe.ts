import { z } from 'zod'
import { hung, keptOf } from '../../recipe/hung'
import type { Row } from '../../recipe/rows'
import type { Node, Port } from '../../recipe/run'
import { problem } from '../../problem'
import { plainNumber } from '../../units/length'
import { longOf, tenths } from '../carrier/line'
import { BEADS } from '../material'
import { rowWork, rowsOfWork, type RowLayout, type RowWork } from '../row-work'
import type { Settings } from '../setting'
import type { Work } from '../technique'
import { strandFindings } from './findings'
import { alikeWith, strandPlanOf, strandPlanSchema } from './strand-plan'
import { fringeBegins } from './begins'
import {
  curtainExtent,
  curtainLayout,
  curtainLong,
  curtainOf,
  placesFor,
  strandsOf,
  type Curtain,
  type Hanger,
} from './curtain'
import { turnDepthMm, turnMm } from './strand'
import { strandSideBy } from './side'

/**
 * Strands that hang side by side from an edge: each a list of its own, down, round what ends it, and back; or across
 * to another place, as a swag. What they hang on is another part; by themselves they hang from a line.
 */

const fringeSettings = z.strictObject({
  turning: z.int().min(0).max(24).default(1).describe('Beads at the end of a strand that its thread turns round'),
  hitch: z.boolean().default(false).describe('A half hitch at the top after each strand'),
  first: z.int().min(0).max(2000).default(1).describe('First bead of the edge that carries one; 0: in the middle'),
  every: z.int().min(1).max(50).default(1).describe('From one that carries a strand to the next'),
  each: z.int().min(1).max(4).default(1).describe('Strands to each'),
  pitch: z
    .number()
    .min(0)
    .max(60)
    .default(0)
    .describe('From strand to strand where they hang on nothing, mm; 0: as thick as they are'),
})
const fringeSettingsOf = (own: Settings) => fringeSettings.parse(own)

const hangerOf = (own: Settings): Hanger => ({ ...fringeSettingsOf(own), loopMm: 0 })
const curtain = (work: Work, rows: readonly Row[] = rowsOfWork(work)): Curtain =>
  curtainOf(work, hangerOf(work.settings), rows)

/** Spread of the figures until a gauge stands. */
const SPREAD = 0.05

/** Thread of a half hitch, mm (from memory). */
const HITCH_MM = 3

/** Strands that a fringe begins with. */
const USUAL_STRANDS = 11

function layout(work: Work, rows: readonly Row[]): RowLayout {
  const all = curtain(work, rows)
  return { ...curtainLayout(all, work.columns), bridge: strandBridge(all) }
}

/**
 * How far it is from hole to hole within a strand: beads touch; a bead that lies across is gone round by the depth of
 * its hole; what is above a strand is gone through. Null from strand to strand, where the places say it.
 */
const strandBridge =
  ({ strands, places }: Curtain) =>
  (from: Port, to: Port, nodes: readonly Node[]): number | null => {
    const [a, b] = [nodes[from.node]!, nodes[to.node]!]
    const strand = strands[a.motif]
    if (a.motif !== b.motif || !strand) return null
    const top = [a, b].find((node) => node.isFixture)
    const through = top ? (places[top.slot === 'far' ? (strand.to ?? strand.at) : strand.at]!.bead?.l ?? 0) : 0
    const ends = strand.to === null ? [a, b].filter(({ at, isFixture }) => !isFixture && at >= keptOf(strand)) : []
    if (strand.turning === 1 && ends.length === 1)
      return through + Math.hypot(ends[0]!.spec!.l / 2, turnDepthMm(ends[0]!.spec!))
    // Two that are turned round lie against each other; more close to a ring.
    if (strand.turning === 2 && ends.length === 2) return Math.abs(ends[0]!.spec!.l - ends[1]!.spec!.l)
    return through
  }

/** Thread of a fringe by its closed formula, mm, with its parts: an account that can be followed by hand. */
export function threadOf(work: Work): {
  readonly strandsMm: number
  readonly turnsMm: number
  readonly topsMm: number
  readonly betweenMm: number
  readonly hitchesMm: number
} {
  const { strands, places } = curtain(work)
  const worked = strands.filter(({ row }) => row.length > 0)
  let [strandsMm, turnsMm, topsMm, betweenMm] = [0, 0, 0, 0]
  worked.forEach((strand, k) => {
    const kept = keptOf(strand)
    strandsMm += (strand.to === null ? 2 : 1) * longOf(strand.row.slice(0, kept))
    const end = strand.row.slice(kept)
    if (strand.to === null && end.length === 1) turnsMm += turnMm(end[0]!)
    else if (strand.to === null) {
      turnsMm += longOf(end)
      // Two lie against each other; more close to a ring.
      if (end.length === 2) turnsMm += Math.abs(end[0]!.l - end[1]!.l)
    }
    const [from, to] = [places[strand.at]!, places[strand.to ?? strand.at]!]
    topsMm += (from.bead?.l ?? 0) + (to.bead?.l ?? 0)
    const before = worked[k - 1]
    const left = before && places[before.to ?? before.at]!
    if (left) betweenMm += Math.hypot(from.x - left.x, from.y - (from.bead?.l ?? 0) - left.y + (left.bead?.l ?? 0))
  })
  const hitch = fringeSettingsOf(work.settings).hitch ? HITCH_MM : 0
  return { strandsMm, turnsMm, topsMm, betweenMm, hitchesMm: hitch * worked.length }
}

const usualRows = ({ usual, bead }: Omit<Work, 'rows'>): Row => usual ?? Array.from({ length: 12 }, () => bead)

const fringeWork: RowWork = {
  id: 'fringe',
  name: 'Fringe',
  summary: 'Strands that hang side by side, each its own list; down, round what ends it, and back.',
  settings: fringeSettings,
  fields: [
    {
      key: 'turning',
      label: 'Turns round',
      help: 'Beads at the end of a strand: 1 for a seed or drop, 3 for a picot, more for a leaf.',
      kind: 'count',
    },
    {
      key: 'hitch',
      label: 'Half hitch after each strand',
      help: 'Keeps the tension; takes a little thread.',
      kind: 'flag',
    },
    {
      key: 'first',
      label: 'First place',
      help: 'First bead of the edge that carries a strand; 0: as many left over on both sides.',
      kind: 'number',
    },
    { key: 'every', label: 'Every', help: '1 for a strand from every bead, 2 for every second.', kind: 'count' },
    { key: 'each', label: 'Strands to a place', help: '2 where two share one bead.', kind: 'count' },
    {
      key: 'pitch',
      label: 'Strand to strand',
      help: 'Where they hang on nothing; 0: as thick as they are.',
      kind: 'length',
    },
  ],
  plan: strandPlanSchema,
  material: { ...BEADS, usualSpec: 'round-11' },
  making: 'hang',
  hangs: true,
  kinds: ['earrings', 'pendant'],
  closure: 'ear-wire',
  words: {
    line: 'strand',
    place: 'bead',
    across: 'on the longest strand',
    acrossTitle: 'Longest strand',
    thing: 'Fringe',
    sample: {
      name: 'strand',
      how: 'Hang up a strand as you make it and measure from its top to its lowest bead.',
      counted: 'Strands measured',
      where: 'From the top bead down.',
      wide: false,
    },
  },
  program(work, rows) {
    const strands = strandsOf(work, rows, hangerOf(work.settings))
    const places = placesFor(work, strands, hangerOf(work.settings))
    const { hitch } = fringeSettingsOf(work.settings)
    return hung(strands, {
      places: places.length,
      pitchMm: places.length > 1 ? Math.abs(places[0]!.x - places[1]!.x) : 0,
      place: places[0]?.bead ? 'top bead' : 'hole',
      hitchMm: hitch ? HITCH_MM : 0,
    })
  },
  layout,
  extent: (work) =>
    curtainExtent(curtain(work), rowsOfWork(work), { spread: SPREAD, counted: `${work.rows} strands`, more: '' }),
  lengthOf: (work) => (work.lineLength ? curtainLong(curtain(work)) : longOf(usualRows(work))),
  rowsFor: () => USUAL_STRANDS,
  firstLines: (count) => Array.from({ length: count }, (_, i) => 4 + 2 * Math.min(i, count - 1 - i)),
  strands: strandSideBy(hangerOf),
  begins: fringeBegins,
  alike: (r, work) => alikeWith(strandPlanOf(work.plan), r, work.rows),
  runs(work, ways) {
    const { strandsMm, turnsMm, topsMm, betweenMm, hitchesMm } = threadOf(work)
    const more = (mm: number, says: string) => (mm > 0.05 ? ` + ${tenths(mm)} ${says}` : '')
    return [
      {
        id: 'thread',
        name: 'Thread for the strands',
        count: 1,
        joined: true,
        lengthMm: ways.get('thread') ?? 0,
        formula:
          `${tenths(strandsMm)} mm down and back${more(turnsMm, 'round their ends')}` +
          `${more(topsMm, 'through the top beads')}${more(betweenMm, 'from strand to strand')}` +
          more(hitchesMm, `for ${plainNumber(hitchesMm / HITCH_MM)} half hitches`),
      },
    ]
  },
  findings: (work) => strandFindings(work, hangerOf(work.settings)),
  check: (work) =>
    work.rows > MOST_STRANDS
      ? [
          problem(
            'strands-many',
            'lines',
            `A fringe can have ${MOST_STRANDS} strands, not ${work.rows}. Make two parts of it.`,
          ),
        ]
      : [],
}
const MOST_STRANDS = 400

export const fringe = rowWork(fringeWork)
