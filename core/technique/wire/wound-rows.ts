import { z } from 'zod'
import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { loopHeightMm, loopWireMm, wrappedLoopMm } from '../../hang/pin'
import { laced, type Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import { wireDiameterMm } from '../../units/wire-gauge'
import type { MeasuredCurve } from '../../wire/curve'
import { placesBetween } from '../../wire/frame'
import {
  halfHull,
  MOST_ROWS,
  onStem,
  outOf,
  sideGrowth,
  tipMm,
  woundRows,
  woundWireMm,
  type Tips,
  type WoundRow,
} from '../../wire/rows-wound'
import { tenths } from '../carrier/line'
import type { Carrier, PlacedBead } from '../drawing'
import { BEADS } from '../material'
import type { Finding, Settings, Work } from '../technique'
import type { Guide, Sizing } from '../wire-side'
import { coil } from './coil'
import { resizedAbout } from './about'
import { highOfRow, longOfRow, places } from './filling'
import {
  differs,
  AS_HOLES_ALLOW,
  gaugeField,
  gaugeNumber,
  gaugeOrHoles,
  gaugeThrough,
  HARDNESS,
  hardnessField,
  keptByShape,
  markedWire,
  ringPoints,
  TUCKED,
  WIRE_CAUTIONS,
  wireWork,
  inMm,
} from './wire-work'

/**
 * Rows wound round what stands on a stem. The first line is the stem from its head down; every other line is a row:
 * its right side from the head down, then its left side from the head down. docs/wire.md.
 */
const LOOPS = ['simple', 'wrapped'] as const
const POINTED = ['none', 'head', 'foot', 'both'] as const
const settings = z.strictObject({
  rows: z.int().min(0).max(8).default(2).describe('Rows round the stem'),
  stem: gaugeOrHoles.default(AS_HOLES_ALLOW).describe('Stem, by its gauge number'),
  winding: gaugeOrHoles.default(AS_HOLES_ALLOW).describe('Wire of the rows, by its gauge number'),
  hardness: z.enum(HARDNESS).default('half'),
  above: z.enum(LOOPS).default('wrapped').describe('Loop at the head'),
  below: z
    .enum(['none', ...LOOPS])
    .default('none')
    .describe('Loop at the foot, for what hangs there'),
  pointed: z.enum(POINTED).default('none').describe('Where rows come to a tip, as those of a leaf do'),
  tip: z.number().min(25).max(75).default(45).describe('Between the side of a tip and the stem, degrees'),
  pliers: z.number().min(1).max(6).default(2.5).describe('Round-nose pliers where loops are turned, mm'),
  wraps: z.int().min(1).max(8).default(3).describe('Turns of a wrapped loop'),
})
type Own = Omit<z.infer<typeof settings>, 'stem' | 'winding'> & { readonly stem: number; readonly winding: number }
function read(given: Settings): Own {
  const own = settings.parse(given)
  return { ...own, stem: gaugeNumber(own.stem), winding: gaugeNumber(own.winding) }
}

/** Held at each end of the winding wire, and of the stem, mm (from memory). */
const HELD_MM = 100
const STEM_HELD_MM = 10

interface LaidRow extends WoundRow {
  readonly row: Row
  /** Beads of its right and of its left side. */
  readonly sides: readonly [Row, Row]
  /** The curve that it lies on, lifted where its beads are too long for it. */
  readonly lies: MeasuredCurve
}

interface Measured {
  readonly own: Own
  readonly stem: Row
  readonly rows: readonly LaidRow[]
  /** How far the rows reach out, mm, on each side, above and below; and how much farther where they come to a tip. */
  readonly outMm: number
  readonly tipsMm: { readonly head: number; readonly foot: number }
}

const halves = <T>(list: readonly T[]): [T[], T[]] => {
  const half = Math.ceil(list.length / 2)
  return [list.slice(0, half), list.slice(half)]
}

/** From this share of a bead on, wire that is left at the ends of a row is said. */
const SHOWS = 0.4

/** What rows are wound round where nothing stands on the stem yet. */
const BARE = { y: 0, r: 1 }

/** The thickest wires of a stem and of rows, by gauge (from memory). */
const STEM_GAUGE = 22
const ROW_GAUGE = 26
const gauged = (own: Own, stem: Row, rows: readonly Row[]): Own => ({
  ...own,
  stem: gaugeThrough(own.stem, STEM_GAUGE, [stem]),
  winding: gaugeThrough(own.winding, ROW_GAUGE, rows),
})

/** Tips of the rows, as half angles to the stem, radians. */
function tipsOf({ pointed, tip }: Own): Tips {
  const at = (end: 'head' | 'foot') => (pointed === end || pointed === 'both' ? (tip * Math.PI) / 180 : undefined)
  return { head: at('head'), foot: at('foot') }
}

const windingOf = (own: Own) => ({
  ...{ stemMm: wireDiameterMm(own.stem), wireMm: wireDiameterMm(own.winding) },
  tips: tipsOf(own),
})

/** The bead that a row is reckoned with: its first; a seed where it has none. */
const beadOf = (row: Row): Row[number] => row[0] ?? requireSpec('round-11')

const measure = keptByShape((work: Work, lines: readonly Row[]): Measured => {
  const [stem = [], ...rest] = lines
  const own = gauged(read(work.settings), stem, rest)
  const circles = stem.length > 0 ? onStem(stem) : [BARE]
  const beads = rest.map(beadOf)
  const winding = windingOf(own)
  const { tips } = winding
  const wound = woundRows(circles, beads, winding)
  const outs = outOf(beads.map(({ d }) => d))
  let lift = 0
  const rows = rest.map((row, k): LaidRow => {
    const sides = halves(row)
    const mine = wound[k]!
    // What is too long lifts the row by a πth part of it (less at a tip), and all rows outside it.
    const over = Math.max(
      0,
      ...sides.map((side) => side.reduce((sum, { l }) => sum + (mine.takenMm * l) / beads[k]!.l, 0) - mine.fillMm),
    )
    lift += over / sideGrowth(tips)
    // Ends of holes lie on the wire, so that it runs a little outside the middles of its beads.
    const least = Math.min(...circles.map(({ r }) => r)) + outs[k]! + lift
    const outside = Math.hypot(least, beads[k]!.l / 2) - least
    return { ...mine, row, sides, lies: halfHull(circles, outs[k]! + lift + outside, tips) }
  })
  const outMm = beads.reduce((sum, { d }) => sum + d, 0) + lift
  return { own, stem, rows, outMm, tipsMm: tipMm(circles, outMm, tips) }
})

const loopUp = (own: Own, kind: Own['above'] | Own['below']): number =>
  kind === 'none' ? 0 : loopHeightMm(own.pliers, wireDiameterMm(own.stem), kind === 'wrapped')
const loopWire = (own: Own, kind: Own['above'] | Own['below']): number =>
  kind === 'none'
    ? 3
    : kind === 'simple'
      ? loopWireMm(own.pliers)
      : wrappedLoopMm(own.pliers, wireDiameterMm(own.stem), own.wraps)

function sizeOf({ own, stem, outMm, tipsMm }: Measured) {
  const body = longOfRow(stem) + 2 * outMm + tipsMm.head + tipsMm.foot
  const above = loopUp(own, own.above)
  const below = loopUp(own, own.below)
  return {
    ...{ body, above, below },
    lengthMm: above + body + (own.below === 'none' ? 0 : below),
    widthMm: Math.max(highOfRow(stem) + 2 * outMm, own.pliers),
  }
}

function wiresOf(all: Measured) {
  const { own, rows } = all
  const { body } = sizeOf(all)
  const winding = woundWireMm(rows, windingOf(own))
  const turns = rows.reduce((sum, row) => sum + row.turns.head + row.turns.foot, 0)
  const stem = {
    ...{ key: 'stem', name: 'Stem', gauge: own.stem, hardness: own.hardness },
    lengthMm: body + loopWire(own, own.above) + loopWire(own, own.below) + 2 * STEM_HELD_MM,
    formula:
      `its beads and the turns at both ends ${inMm(body)} + loop ${inMm(loopWire(own, own.above))} + ` +
      `${own.below === 'none' ? 'bent end' : 'loop'} ${inMm(loopWire(own, own.below))} + ` +
      `2 × ${STEM_HELD_MM} mm to hold`,
  }
  return rows.length === 0
    ? [stem]
    : [
        stem,
        {
          ...{ key: 'winding', name: 'Wire of the rows', gauge: own.winding, hardness: 'soft' as const },
          lengthMm: winding + 2 * HELD_MM,
          formula:
            `both sides of ${rows.length} ${rows.length === 1 ? 'row' : 'rows'} and ${turns} turns on the stem ` +
            `${inMm(winding)} + 2 × ${HELD_MM} mm to hold`,
        },
      ]
}

function findings({ own, stem, rows }: Measured): Finding[] {
  const growth = sideGrowth(tipsOf(own))
  const out: Finding[] = []
  const add = (code: string, weight: Finding['weight'], says: string) => out.push({ code, weight, says })
  if (stem.length === 0) add('stem-empty', 'stops', 'Nothing stands on the stem: string one bead at least.')
  rows.forEach(({ row, sides, count, slackMm, takenMm, fillMm }, k) => {
    const name = `Row ${k + 1}`
    if (sides[0].length !== sides[1].length)
      add(
        'sides-unequal',
        'stops',
        `${name} has ${sides[0].length} beads on its right and ${sides[1].length} on its left: both sides carry the ` +
          `same count, ${count} here.`,
      )
    else if (row.length > 0 && row.every(({ id }) => id === row[0]!.id)) {
      const each = sides[0].length
      const over = each * takenMm - fillMm
      if (each !== count)
        add(
          'row-count',
          each > count ? 'stops' : 'note',
          `${name} takes ${count} a side and has ${each}: ` +
            (each > count
              ? `it would stand off by ${inMm(over / growth)}.`
              : `${inMm(-over)} of wire shows on each side.`),
        )
      else if (slackMm > SHOWS * row[0]!.l)
        add(
          'row-slack',
          'note',
          `${inMm(slackMm / 2)} of wire shows at each end of row ${k + 1}: ${count + 1} beads stand off by ` +
            `${inMm((takenMm - slackMm) / growth)}, ${count} leave it.`,
        )
    }
  })
  if (rows.length > MOST_ROWS)
    add('rows-many', 'note', `Winding gets clumsy beyond ${MOST_ROWS} rows: ${rows.length} will clump at the stem.`)
  if (own.above === 'simple' && rows.length > 1)
    add('loop-opens', 'note', 'A simple loop can open under rows like these: a wrapped one holds.')
  return out
}

function layoutOf(work: Work, all: Measured) {
  const { own, stem, rows, outMm, tipsMm } = all
  const { above, lengthMm, widthMm, body } = sizeOf(all)
  const middle = widthMm / 2
  const top = above + outMm + tipsMm.head
  const { stemMm, wireMm } = windingOf(own)
  const placed: PlacedBead[] = onStem(stem).map(({ y }, c) => ({
    ...{ key: keyOf(work.columns, c, 0), x: middle, y: top + y, turnDegrees: 90, bead: stem[c]! },
  }))
  const loopR = (own.pliers + stemMm) / 2
  const loop = (y: number): Carrier => ({
    ...{ kind: 'wire', thickMm: stemMm },
    points: ringPoints(middle, y, loopR, 24),
  })
  /** Turns of a wrapped loop, from its bead to it. */
  const neck = (from: number, to: number): Carrier[] => {
    const long = Math.min(own.wraps * stemMm, Math.abs(to - from))
    return coil({
      ...{ from: { x: middle, y: from }, to: { x: middle, y: from + Math.sign(to - from) * long } },
      ...{ turns: own.wraps, radiusMm: stemMm, thickMm: stemMm },
    })
  }
  // From loop to loop; a bent end does not show.
  const lowest = own.below === 'none' ? above + body : lengthMm - loopR
  const carriers: Carrier[] = [
    {
      ...{ kind: 'wire', thickMm: stemMm },
      points: [
        { x: middle, y: loopR },
        { x: middle, y: lowest },
      ],
    },
    loop(0),
    ...(own.above === 'wrapped' ? neck(above, loopR) : []),
    ...(own.below === 'none' ? [] : [loop(lengthMm)]),
    ...(own.below === 'wrapped' ? neck(above + body, lowest) : []),
  ]
  rows.forEach(({ sides, lies, clearMm: { head, foot } }, k) => {
    const room = { from: head, to: Math.max(head + 0.1, lies.lengthMm - foot) }
    sides.forEach((side, s) => {
      const sign = s === 0 ? 1 : -1
      placesBetween(lies, side, room).places.forEach(({ x, y, turnDegrees }, c) =>
        placed.push({
          key: keyOf(work.columns, c + (s === 0 ? 0 : sides[0].length), k + 1),
          ...{ x: middle + sign * x, y: top + y, bead: side[c]! },
          turnDegrees: s === 0 ? turnDegrees : 180 - turnDegrees,
        }),
      )
      carriers.push({
        ...{ kind: 'wire', thickMm: wireMm },
        points: Array.from({ length: 49 }, (_, i) => {
          const { x, y } = lies.at((lies.lengthMm * i) / 48)
          return { x: middle + sign * x, y: top + y }
        }),
      })
    })
  })
  // Turns on the stem, at its head and its foot.
  rows.forEach(({ turns: { head, foot }, lies }) => {
    for (const { at, turns } of [
      { at: lies.at(0).y, turns: head },
      { at: lies.at(lies.lengthMm).y, turns: foot },
    ]) {
      const half = (turns * wireMm) / 2
      carriers.push(
        ...coil({
          ...{ from: { x: middle, y: top + at - half }, to: { x: middle, y: top + at + half }, turns },
          ...{ radiusMm: (stemMm + wireMm) / 2, thickMm: wireMm },
        }),
      )
    }
  })
  return {
    ...{ placed, carriers, widthMm, lengthMm },
    hungAt: { x: middle, y: 0 },
    fixtureAt: () => ({ x: middle, y: top }),
  }
}

/** Each row: how long its wire is, what it takes and has, and its turns on the stem. */
const tables = (work: Work) => [
  {
    title: 'Row by row',
    head: ['Row', 'Beads', 'Takes a side', 'Has', 'Side, mm', 'Turns'],
    rows: measure(work).rows.map(({ row, sides, count, curve, turns }, k) => [
      String(k + 1),
      row[0]?.name ?? '',
      String(count),
      sides[0].length === sides[1].length ? String(sides[0].length) : `${sides[0].length} and ${sides[1].length}`,
      tenths(curve.lengthMm),
      turns.head === turns.foot ? String(turns.head) : `${turns.head} above, ${turns.foot} below`,
    ]),
  },
]

function guidesOf(all: Measured): Guide[] {
  const { own } = all
  const [stem] = wiresOf(all)
  const head = STEM_HELD_MM + loopWire(own, own.above)
  return [
    markedWire('Stem', stem!.lengthMm, wireDiameterMm(own.stem), [
      { at: head, says: 'head of the work' },
      { at: stem!.lengthMm - STEM_HELD_MM - loopWire(own, own.below), says: 'foot' },
    ]),
    {
      title: 'Loops',
      ...{ widthMm: 40, lengthMm: 14 },
      lines: [{ kind: 'tool', thickMm: 0.2, points: ringPoints(7, 7, own.pliers / 2) }],
      labels: [{ x: 12, y: 8, says: `pliers ${tenths(own.pliers)} mm here` }],
      says: ['Mark the pliers where they are as thick as the circle: all loops of a set are turned there.'],
    },
  ]
}

/** Rows as full as they are, and as many as the settings say: a new one is like the last. */
function full(lines: readonly (readonly number[])[], work: Work, from?: Settings): number[][] {
  if (!differs(from, work.settings, ['rows', 'pointed', 'tip'])) return lines.map((line) => [...line])
  const own = read(work.settings)
  const beads = new Map<number, Row[number]>()
  lines.forEach((line, r) => line.forEach((number, c) => beads.set(number, work.beadAt?.(c, r) ?? work.bead)))
  const [stem = [], ...rest] = lines
  const count = from === undefined || read(from).rows === own.rows ? rest.length : own.rows
  const any = rest.at(-1) ?? stem
  const wanted = Array.from({ length: count }, (_, k) => rest[k] ?? [...any])
  const specs = wanted.map((line) => (line[0] === undefined ? work.bead : (beads.get(line[0]) ?? work.bead)))
  const standing = stem.map((number) => beads.get(number)!)
  const wound = woundRows(
    onStem(standing),
    specs,
    windingOf(
      gauged(
        own,
        standing,
        specs.map((one) => [one]),
      ),
    ),
  )
  return [
    [...stem],
    ...wanted.map((line, k) => {
      const [right, left] = halves(line)
      const each = Math.max(1, wound[k]!.count)
      return [...resizedAbout(right, each), ...resizedAbout(left.length > 0 ? left : right, each)]
    }),
  ]
}

function sizedTo(lengthMm: number, work: Work): Sizing[] {
  const all = measure(work)
  const { rows } = all
  const now = sizeOf(all).lengthMm
  const grown = [...Object.values(tipsOf(read(work.settings)))].reduce(
    (sum: number, tip) => sum + 1 / Math.sin(tip ?? Math.PI / 2),
    0,
  )
  const each = grown * (rows.length > 0 ? beadOf(rows.at(-1)!.row).d : 2)
  const exact = rows.length + (lengthMm - now) / each
  const within = (count: number) => Math.max(1, Math.min(MOST_ROWS, count))
  return [...new Set([within(Math.floor(exact)), within(Math.ceil(exact))])]
    .filter((count) => count !== rows.length)
    .map((count) => ({
      settings: settings.parse({ ...work.settings, rows: count }),
      says: `${count} ${count === 1 ? 'row' : 'rows'}`,
    }))
}

const POINTED_AT = { none: 'nowhere: round', head: 'at its head', foot: 'at its foot', both: 'at both ends' } as const

/** Sizes that it is begun with beside the seeds: two beads on the stem. */
const SIZES = ['ball-6-mm', 'ball-3-mm'] as const
function firstOf(work: Pick<Work, 'bead' | 'settings'>): number[][] {
  const rowBeads = Array.from({ length: read(work.settings).rows }, () => work.bead)
  const standing = SIZES.map((id) => requireSpec(id))
  const own = gauged(read(work.settings), standing, [[work.bead]])
  const wound = woundRows(onStem(standing), rowBeads, windingOf(own))
  return [[1, 2], ...wound.map(({ count }) => Array<number>(2 * Math.max(1, count)).fill(0))]
}

export const woundRowsOnWire = wireWork({
  id: 'wound-rows',
  name: 'Rows wound round a centre',
  summary: 'Beads on a stem, and rows of beads wound round them on wire: rounds, leaves, drops, in graded sizes.',
  settings,
  fields: [
    { key: 'rows', label: 'Rows', help: 'Up to four; more of them clump.', kind: 'number' },
    gaugeField('stem', 'Stem, gauge', '22 is 0.64 mm.', [16, 26], true),
    gaugeField('winding', 'Rows, gauge', '26 is 0.4 mm, 28 is 0.32 mm.', [22, 32], true),
    hardnessField,
    {
      ...{ key: 'pointed', label: 'Pointed', help: 'As a leaf is, or a drop.', kind: 'choice' as const },
      choices: POINTED.map((value) => ({ value, label: POINTED_AT[value] })),
    },
    {
      ...{ key: 'tip', label: 'Tip, degrees', help: 'Between its side and the stem; 45 is usual.' },
      kind: 'number',
      counts: (own: Settings) => read(own).pointed !== 'none',
    },
    {
      ...{ key: 'above', label: 'Loop above', help: 'A wrapped loop cannot open.', kind: 'choice' as const },
      choices: LOOPS.map((value) => ({ value, label: value })),
    },
    {
      ...{ key: 'below', label: 'Loop below', help: 'For something that hangs from it.', kind: 'choice' as const },
      choices: ['none', ...LOOPS].map((value) => ({ value, label: value })),
    },
    { key: 'pliers', label: 'Pliers', help: 'Where loops are turned.', kind: 'length' },
    { key: 'wraps', label: 'Turns of a wrap', help: 'Round the neck of a wrapped loop.', kind: 'count' },
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'round-11' },
  kinds: ['earrings', 'pendant'],
  closure: 'ear-wire',
  graded: {
    label: 'A graded front on a chain',
    says: 'The largest in the middle; a row less with every one beside it.',
    kinds: ['pendant'],
    usualWidthMm: 130,
    smaller(from, away) {
      const rows = read(from).rows - away
      return rows < 1 ? null : settings.parse({ ...from, rows })
    },
  },
  lineTitle: (i) => (i === 0 ? 'Stem' : `Row ${i}`),
  words: {
    line: 'line',
    place: 'bead',
    across: 'in the longest row',
    acrossTitle: 'Longest row',
    thing: 'Pendant',
    sample: {
      name: 'sample',
      how: 'Work one and measure from the middle of its loop to its lowest bead.',
      counted: 'Worked',
      where: 'From the loop down.',
      wide: true,
    },
  },
  first: {
    sizes: SIZES,
    edge: 0,
    period: ({ settings: own }) => 1 + read(own).rows,
    parts: (r, _count, work) => firstOf(work)[r] ?? [],
  },
  shape(work, rows) {
    const all = measure(work, rows)
    const { lengthMm, widthMm, above, body } = sizeOf(all)
    const tips = all.tipsMm.head + all.tipsMm.foot
    return {
      layout: layoutOf(work, all),
      ...{
        lengthMm,
        widthMm,
        thicknessMm: Math.max(highOfRow(all.stem), ...all.rows.map(({ row }) => highOfRow(row))),
      },
      lengthFormula:
        `${inMm(longOfRow(all.stem))} on the stem + 2 × ${inMm(all.outMm)} of rows` +
        (tips > 0 ? ` + ${inMm(tips)} more for tips` : '') +
        (above > 0 ? ` + ${inMm(above)} to the middle of the loop` : '') +
        (lengthMm > above + body ? ` + ${inMm(lengthMm - above - body)} to the loop below` : ''),
      widthFormula: `${inMm(highOfRow(all.stem))} across the stem’s beads + 2 × ${inMm(all.outMm)}`,
      wires: wiresOf(all),
      guides: guidesOf(all),
      findings: findings(all),
    }
  },
  program(work, lines) {
    const { own, rows } = measure(work, lines)
    const { stemMm, wireMm, tips } = windingOf(own)
    const across = (tip: number | undefined): string =>
      tip === undefined ? '' : `, crossing it at ${tenths((tip * 180) / Math.PI)}°`
    const lacings: Lacing[][] = [
      [
        { do: 'pick', by: 'stem', at: places(0, lines[0]?.length ?? 0), note: 'from the head down' },
        {
          do: 'say',
          text:
            own.below === 'none'
              ? 'bend the end of the stem so that nothing slides off'
              : `turn the ${own.below} loop below`,
        },
      ],
      ...rows.map(({ row, sides, turns }, k): Lacing[] => [
        {
          do: 'wrap',
          by: 'winding',
          round: 'stem',
          turns: turns.head,
          note: `at the head, close together${across(tips.head)}`,
        },
        { do: 'pick', by: 'winding', at: places(0, sides[0].length), note: 'down the right side' },
        { do: 'wrap', by: 'winding', round: 'stem', turns: turns.foot, note: `at the foot${across(tips.foot)}` },
        {
          ...{ do: 'pick', by: 'winding', at: places(sides[0].length, row.length).reverse(), turned: true },
          note: 'up the left side',
        },
        ...(k === rows.length - 1
          ? ([
              { do: 'wrap', by: 'winding', round: 'stem', turns: 2, note: 'ends the winding' },
              { do: 'say', text: `cut the winding wire, press its end in, and turn the ${own.above} loop above` },
            ] as const)
          : []),
      ]),
    ]
    return laced(lines, lacings, {
      unit: 'row',
      carriers: [
        { id: 'stem', name: 'stem', kind: 'wire', mm: stemMm },
        { id: 'winding', name: 'winding wire', kind: 'wire', mm: wireMm },
      ],
      fixtures: { stem: { name: 'stem', d: stemMm, holes: 1, pitch: 0 } },
      cut: { folded: false, each: 'piece' },
    })
  },
  // Its eye lies in its plane.
  eyeAcross: () => false,
  side: { upright: true, stands: true, full, sizedTo, tables },
  lengthOf: (work) => (work.lineLength ? sizeOf(measure(work)).lengthMm : 20),
  rowsFor: (_mm, work) => 1 + read(work.settings).rows,
  firstLines: (count, work) => Array.from({ length: count }, (_, r) => (firstOf(work)[r] ?? [0]).length),
  workplace: () => ({
    tools: ['Round-nose pliers', 'Chain-nose pliers', 'Nylon-jaw pliers', 'Flush cutter', 'File', 'Eye protection'],
    needs: [],
    ready: [{ id: 'straighten', text: 'Draw the stem through nylon jaws until it is straight', minutes: 1 }],
    cautions: WIRE_CAUTIONS,
    fasten: {
      title: 'Press in and look',
      says: [
        'Press the cut end of the winding flat against the stem, behind the work.',
        'Sizes of a set: lay them beside each other by size, loops facing the same way.',
      ],
      minutes: 4,
      cautions: [TUCKED],
    },
    mirror: 'It is the mirror of the first: string the list of its right side down the left, and the other way round.',
    pair: {
      title: 'Lay the pair together',
      says: ['Lay one upon the other, face to face: rows and loops should cover each other.'],
      minutes: 2,
    },
    glued: false,
  }),
  mostLines: 60,
})
