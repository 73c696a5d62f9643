import { z } from 'zod'
import { loopHeightMm, loopWireMm, PIN_HEAD_MM, stockPin, wrappedLoopMm } from '../../hang/pin'
import { onPins } from '../../recipe/hung'
import type { Row } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import { longOf, tenths } from '../carrier/line'
import type { Carrier } from '../drawing'
import { BEADS } from '../material'
import { rowWork, rowsOfWork, type RowLayout, type RowWork } from '../row-work'
import type { Finding, Settings, Work } from '../technique'
import type { Need } from '../workplace'
import { danglesBegins } from './begins'
import { curtainExtent, curtainLayout, curtainLong, curtainOf, type Curtain, type Hanger } from './curtain'
import { strandFindings, turnedLinks } from './findings'
import { strandSideBy } from './side'
import { alikeWith, strandPlanOf, strandPlanSchema } from './strand-plan'

/**
 * Dangles: lists of beads on headpins or eye pins, each with a loop, that hang side by side from a finding, a chain or
 * an edge. Nothing is stitched; they are made in any order.
 */
const settings = z.strictObject({
  pin: z.enum(['head', 'eye']).default('head').describe('Headpins end the dangle; eye pins carry another below'),
  loop: z.enum(['simple', 'wrapped']).default('simple'),
  turns: z.int().min(1).max(8).default(3).describe('Turns of a wrapped loop round its neck'),
  pliers: z.number().min(1).max(8).default(2.5).describe('Round-nose pliers where the loop is turned, mm'),
  wire: z.number().min(0.3).max(1.5).default(0.6).describe('Wire of the pin, mm'),
  first: z.int().min(0).max(2000).default(1).describe('First place that carries a dangle; 0: in the middle'),
  every: z.int().min(1).max(50).default(1).describe('From one that carries a dangle to the next'),
  pitch: z.number().min(0).max(60).default(0).describe('Dangle to dangle where they hang on nothing, mm; 0: clear'),
})
const read = (own: Settings) => settings.parse(own)

/** Spread of the figures until a gauge stands. */
const SPREAD = 0.03
/** Dangles that a set begins with. */
const USUAL_DANGLES = 5
/** Brass, g/mm³ (handbook figure, about 8.5 g/cm³). */
const BRASS_G_PER_MM3 = 8.5e-3

const hangerOf = (own: Settings): Hanger => {
  const { loop, pliers, wire, first, every, pitch } = read(own)
  return { turning: 0, first, every, each: 1, pitch, loopMm: loopHeightMm(pliers, wire, loop === 'wrapped') }
}
const curtain = (work: Work, rows: readonly Row[] = rowsOfWork(work)): Curtain =>
  curtainOf(work, hangerOf(work.settings), rows)

/** Wire beyond the beads of a pin, mm: its loop, and of an eye pin nothing, since its eye is bought. */
const loopOf = (own: Settings): number => {
  const { loop, pliers, wire, turns } = read(own)
  return loop === 'simple' ? loopWireMm(pliers) : wrappedLoopMm(pliers, wire, turns)
}

/** How long a pin must be for a list of beads, mm. */
export const pinNeedMm = (row: Row, own: Settings): number => longOf(row) + loopOf(own)

const pinName = (own: Settings): string => (read(own).pin === 'head' ? 'Headpins' : 'Eye pins')

/** Pins to buy, by their length: each dangle on the shortest that is long enough. */
function pinsToBuy(work: Work): Need[] {
  const bySize = new Map<number | null, { count: number; off: number[] }>()
  for (const row of rowsOfWork(work)) {
    if (row.length === 0) continue
    const need = pinNeedMm(row, work.settings)
    const stock = stockPin(need)
    const there = bySize.get(stock) ?? { count: 0, off: [] }
    bySize.set(stock, { count: there.count + 1, off: [...there.off, (stock ?? need) - need] })
  }
  const { wire } = read(work.settings)
  return [...bySize]
    .sort(([a], [b]) => (a ?? Infinity) - (b ?? Infinity))
    .map(([stock, { count, off }]) => {
      const [least, most] = [Math.min(...off), Math.max(...off)]
      return stock === null
        ? {
            name: `Wire ${plainNumber(wire)} mm with a bent end`,
            count,
            says: 'longer than the longest pin that is sold',
          }
        : {
            name: `${pinName(work.settings)} ${stock} mm, ${plainNumber(wire)} mm thick`,
            count,
            says: `cut off ${tenths(least)}${most - least > 0.05 ? ` to ${tenths(most)}` : ''} mm`,
          }
    })
}

function layout(work: Work, rows: readonly Row[]): RowLayout {
  const all = curtain(work, rows)
  const base = curtainLayout(all, work.columns)
  const { wire, pliers, pin } = read(work.settings)
  const [dx, dy] = [base.hungAt!.x, base.hungAt!.y]
  const loop = (x: number, y: number): Carrier => ({
    kind: 'wire',
    thickMm: wire,
    points: Array.from({ length: 17 }, (_, k) => {
      const turn = (2 * Math.PI * k) / 16
      return { x: x + (pliers / 2) * Math.sin(turn), y: y + (pliers / 2) * Math.cos(turn) }
    }),
  })
  const carriers = all.strands.flatMap(({ x, y, row, endMm }): Carrier[] => {
    if (row.length === 0) return []
    const foot = endMm + 0.3
    const line: Carrier = {
      kind: 'wire',
      thickMm: wire,
      points: [
        { x: x + dx, y: y + dy + pliers / 2 },
        { x: x + dx, y: foot + dy },
      ],
    }
    const head: Carrier = {
      kind: 'wire',
      thickMm: 0.6,
      points: [
        { x: x + dx - PIN_HEAD_MM / 2, y: foot + dy },
        { x: x + dx + PIN_HEAD_MM / 2, y: foot + dy },
      ],
    }
    return [line, loop(x + dx, y + dy), pin === 'head' ? head : loop(x + dx, foot + dy + pliers / 2)]
  })
  return { ...base, carriers }
}

/** Holes that a pin does not pass, or that slip over its head; pins longer than any that is sold. */
function findings(work: Work): Finding[] {
  const { wire, pin } = read(work.settings)
  const rows = rowsOfWork(work)
  const out: Finding[] = []
  const slips = rows.findIndex((row) => pin === 'head' && (row.at(-1)?.h ?? 0) > PIN_HEAD_MM)
  if (slips >= 0)
    out.push({
      code: 'pin-head',
      weight: 'stops',
      lines: [slips],
      says:
        `The lowest bead of dangle ${slips + 1} has a hole of ${tenths(rows[slips]!.at(-1)!.h)} mm and slips over a ` +
        'pin’s head: string a seed bead first.',
    })
  const tight = rows.flatMap((row, r) => (row.some((bead) => bead.h < wire) ? [r] : []))
  if (tight.length > 0) {
    const bead = rows[tight[0]!]!.find(({ h }) => h < wire)!
    out.push({
      code: 'pin-thick',
      weight: 'stops',
      lines: tight,
      says:
        `${bead.name} on dangle ${tight[0]! + 1} has a hole of ${plainNumber(bead.h)} mm: wire of ` +
        `${plainNumber(wire)} mm does not pass. Take thinner pins.`,
    })
  }
  const long = rows.findIndex((row) => row.length > 0 && stockPin(pinNeedMm(row, work.settings)) === null)
  if (long >= 0)
    out.push({
      code: 'pin-long',
      weight: 'note',
      lines: [long],
      says:
        `Dangle ${long + 1} needs ${tenths(pinNeedMm(rows[long]!, work.settings))} mm of wire, longer than the ` +
        'longest pin: use wire with a bent end, or take beads off.',
    })
  const hanger = hangerOf(work.settings)
  return [...out, ...turnedLinks(curtain(work), hanger), ...strandFindings(work, hanger)]
}

const danglesWork: RowWork = {
  id: 'dangles',
  name: 'Dangles on pins',
  summary: 'Lists of beads on headpins or eye pins, each with its loop; graded in sets of any count.',
  settings,
  fields: [
    {
      key: 'pin',
      label: 'Pins',
      help: 'A headpin ends the dangle; an eye pin can carry another.',
      kind: 'choice',
      choices: [
        { value: 'head', label: 'headpins' },
        { value: 'eye', label: 'eye pins' },
      ],
    },
    {
      key: 'loop',
      label: 'Loop',
      help: 'A wrapped loop cannot open; it takes more wire.',
      kind: 'choice',
      choices: [
        { value: 'simple', label: 'simple' },
        { value: 'wrapped', label: 'wrapped' },
      ],
    },
    { key: 'turns', label: 'Turns of the wrap', help: 'Round the neck of a wrapped loop.', kind: 'count' },
    { key: 'pliers', label: 'Pliers', help: 'Thickness of the round nose where the loop is turned.', kind: 'length' },
    { key: 'wire', label: 'Wire', help: 'Thickness of the pin; it must pass the smallest hole.', kind: 'length' },
    {
      key: 'first',
      label: 'First place',
      help: 'First hole, link or bead that carries a dangle; 0: as many left over on both sides.',
      kind: 'number',
    },
    { key: 'every', label: 'Every', help: '1 for a dangle from every place, 2 for every second.', kind: 'count' },
    {
      key: 'pitch',
      label: 'Dangle to dangle',
      help: 'Where they hang on nothing; 0: as thick as they are.',
      kind: 'length',
    },
  ],
  plan: strandPlanSchema,
  material: { ...BEADS, usualSpec: 'ball-4-mm' },
  making: 'hang',
  hangs: true,
  kinds: ['earrings', 'pendant'],
  closure: 'ear-wire',
  anyOrder: true,
  words: {
    line: 'pin',
    place: 'bead',
    across: 'on the fullest pin',
    acrossTitle: 'Fullest pin',
    thing: 'Dangles',
    sample: {
      name: 'dangle',
      how: 'Make one dangle and measure from the top of its loop to its lowest bead.',
      counted: 'Dangles measured',
      where: 'From the loop down.',
      wide: false,
    },
  },
  program: (_work, rows) => onPins(rows),
  layout,
  extent: (work) =>
    curtainExtent(curtain(work), rowsOfWork(work), {
      ...{ spread: SPREAD, counted: `${work.rows} dangles`, more: ', loop and beads' },
    }),
  lengthOf: (work) => (work.lineLength ? curtainLong(curtain(work)) : longOf(work.usual ?? [work.bead])),
  rowsFor: () => USUAL_DANGLES,
  firstLines: (count) => Array.from({ length: count }, (_, i) => 2 + Math.min(i, count - 1 - i)),
  alike: (r, work) => alikeWith(strandPlanOf(work.plan), r, work.rows),
  strands: strandSideBy(hangerOf),
  begins: danglesBegins,
  runs: () => [],
  strungOn: (work) => ({ diameterMm: read(work.settings).wire, flattens: false, name: 'pin' }),
  grams(work) {
    const { wire } = read(work.settings)
    const mm = rowsOfWork(work).reduce((sum, row) => sum + (row.length > 0 ? pinNeedMm(row, work.settings) : 0), 0)
    return ((Math.PI * wire * wire) / 4) * mm * BRASS_G_PER_MM3
  },
  workplace(work) {
    const { loop } = read(work.settings)
    return {
      tools: ['Round-nose pliers', 'Chain-nose pliers', 'Wire cutters', 'Eye protection'],
      needs: pinsToBuy(work),
      ready: [
        { id: 'pins', text: `Lay out ${work.rows} pins by length, and try the beads on one of them`, minutes: 5 },
      ],
      cautions: [
        'Cut ends of pins fly and scratch: wear eye protection, cut them pointing away, and close every loop fully.',
      ],
      fasten: {
        title: 'Hang the dangles',
        says: [
          loop === 'simple'
            ? 'Open each loop sideways, hang it in its place, and close it the same way.'
            : 'Hang each dangle in its place before its loop is wrapped: it cannot be opened after.',
        ],
        minutes: 10,
      },
      glued: false,
    }
  },
  findings,
  check: () => [],
}

export const dangles = rowWork(danglesWork)
