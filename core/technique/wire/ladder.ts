import { z } from 'zod'
import { requireSpec, type BeadSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { loopWireMm, wrappedLoopMm, loopHeightMm } from '../../hang/pin'
import { laced, type Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import { wireDiameterMm } from '../../units/wire-gauge'
import {
  mixedRow,
  OUTLINES,
  outlineWidths,
  pitchMm,
  rowsFollowing,
  safePitchMm,
  sideOf,
  twistWireMm,
  widthOf,
} from '../../wire/rungs'
import { tenths } from '../carrier/line'
import type { Carrier, PlacedBead } from '../drawing'
import { BEADS } from '../material'
import type { Finding, Settings, Work } from '../technique'
import type { Guide, Sizing } from '../wire-side'
import { coil, twisted } from './coil'
import { highOfRow } from './filling'
import { resizedAbout } from './about'
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
 * A wire ladder: rows of any widths, both ends of one wire cross in each; a twist and a loop end it. The first line
 * holds the fold of the wire; the last one lies at the loop. docs/wire.md.
 */
const SHAPES = ['own', ...OUTLINES] as const
const settings = z.strictObject({
  outline: z.enum(SHAPES).default('diamond').describe('What its rows follow, or rows of one’s own'),
  rows: z.int().min(2).max(60).default(11).describe('Rows that follow the outline'),
  widest: z.number().min(2).max(120).default(14).describe('Where the outline is widest, mm'),
  turned: z.boolean().default(false).describe('Its last row first'),
  gauge: gaugeOrHoles.default(AS_HOLES_ALLOW).describe('Wire, by its gauge number'),
  hardness: z.enum(HARDNESS).default('soft'),
  twist: z.int().min(0).max(20).default(4).describe('Turns that both ends are twisted together'),
  loop: z.enum(['simple', 'wrapped']).default('wrapped'),
  wraps: z.int().min(1).max(8).default(3).describe('Turns of a wrapped loop round its neck'),
  pliers: z.number().min(1).max(6).default(2.5).describe('Round-nose pliers at the mark where the loop is turned, mm'),
})
type Own = Omit<z.infer<typeof settings>, 'gauge'> & { readonly gauge: number }
function read(given: Settings): Own {
  const own = settings.parse(given)
  return { ...own, gauge: gaugeNumber(own.gauge) }
}

/** The thickest wire that ladders are worked with, by gauge (from memory). */
const LADDER_GAUGE = 26
/** Held at each end while it is worked, mm (from memory). */
const HELD_MM = 40
/** Length of a twist for each of its turns, in thicknesses of the wire: loose enough to lie evenly. */
const TWIST_PITCH = 4

interface Measured {
  readonly own: Own
  readonly rows: readonly Row[]
  /** Middle of each row above the first, mm. */
  readonly at: readonly number[]
  readonly tallMm: number
  readonly wideMm: number
  readonly thickMm: number
}

const measure = keptByShape((work: Work, rows: readonly Row[]): Measured => {
  const at: number[] = []
  const asked = read(work.settings)
  // Both ends go through every row.
  const own = { ...asked, gauge: gaugeThrough(asked.gauge, LADDER_GAUGE, rows, 2) }
  rows.forEach((row, i) => {
    const before = rows[i - 1]
    at.push(before ? at[i - 1]! + pitchMm(before, row) : highOfRow(row) / 2)
  })
  const last = rows.at(-1)
  return {
    own,
    rows,
    at,
    tallMm: last ? at.at(-1)! + highOfRow(last) / 2 : 0,
    wideMm: rows.reduce((most, row) => Math.max(most, widthOf(row)), 0),
    thickMm: rows.reduce((most, row) => Math.max(most, highOfRow(row)), 0),
  }
})

const twistLong = (own: Own): number => own.twist * TWIST_PITCH * wireDiameterMm(own.gauge)
/** From the last row to the middle of the loop, mm. */
const topMm = (own: Own): number =>
  twistLong(own) + loopHeightMm(own.pliers, wireDiameterMm(own.gauge), own.loop === 'wrapped')
const longMm = ({ own, tallMm }: Measured): number => tallMm + topMm(own)

function wiresOf({ own, rows }: Measured) {
  const a = wireDiameterMm(own.gauge)
  const first = rows[0] ? widthOf(rows[0]) : 0
  const others = rows.slice(1).reduce((sum, row) => sum + widthOf(row), 0)
  const sides = rows.slice(1).reduce((sum, row, i) => sum + sideOf(rows[i]!, row).bridgeMm, 0)
  const twist = twistWireMm(own.twist, a, twistLong(own))
  const loop = own.loop === 'wrapped' ? wrappedLoopMm(own.pliers, a, own.wraps) : loopWireMm(own.pliers)
  return [
    {
      ...{ key: 'wire', name: 'Wire of the ladder', gauge: own.gauge, hardness: own.hardness },
      lengthMm: first + 2 * others + 2 * sides + 2 * twist + loop + 2 * HELD_MM,
      formula:
        `first row ${inMm(first)} + 2 × ${inMm(others)} of the others + 2 × ${inMm(sides)} from row to row + 2 × ` +
        `${inMm(twist)} of twist + loop ${inMm(loop)} + 2 × ${HELD_MM} mm to hold`,
    },
  ]
}

const nameOf = (beads: readonly BeadSpec[]): string => {
  const counts = new Map<string, number>()
  for (const { name } of beads) counts.set(name, (counts.get(name) ?? 0) + 1)
  return [...counts].map(([name, n]) => `${n} × ${name}`).join(' and ')
}

/** A row of the beads of two others that lies between them in width. */
function between(a: Row, b: Row): Row {
  const beads = [...a, ...b]
  const small = beads.reduce((best, bead) => (bead.l < best.l ? bead : best))
  const large = beads.reduce((best, bead) => (bead.l > best.l ? bead : best))
  const want = (widthOf(a) + widthOf(b)) / 2
  let best: { row: Row; off: number } | null = null
  for (let nb = 0; nb * large.l <= want + large.l; nb++)
    for (let na = 0; na * small.l + nb * large.l <= want + large.l; na++) {
      if (na + nb === 0 || (na % 2 === 1 && nb % 2 === 1) || (small === large && nb > 0)) continue
      const row = mixedRow({ a: na, b: nb }).map((k) => (k === 0 ? small : large))
      const off = Math.abs(widthOf(row) - want)
      if (!best || off < best.off - 1e-9) best = { row, off }
    }
  return best?.row ?? []
}

function findings({ rows }: Measured): Finding[] {
  return rows.flatMap((row, i): Finding[] => {
    const out: Finding[] = []
    const before = rows[i - 1]
    if (row.length === 0)
      return [
        {
          code: 'row-empty',
          weight: 'stops',
          lines: [i],
          says: `Row ${i + 1} has no bead: string it, or take it out.`,
        },
      ]
    if (row.some((bead, k) => bead.id !== row[row.length - 1 - k]!.id))
      out.push({
        code: 'row-lopsided',
        weight: 'looks',
        lines: [i],
        says: `Row ${i + 1} is not its own mirror: one side of the ladder will stand out.`,
      })
    if (!before || before.length === 0) return out
    const { offMm, bareMm } = sideOf(before, row)
    // More than half a bead, as thick as the thinner of them.
    const half = Math.min(highOfRow(before), highOfRow(row)) / 2
    if (offMm > half + 1e-9) {
      const put = between(before, row)
      const gone = widthOf(row) > widthOf(before) ? 'wider' : 'narrower'
      const mends = Math.abs(widthOf(put) - widthOf(row)) > 1e-6 && Math.abs(widthOf(put) - widthOf(before)) > 1e-6
      out.push({
        code: 'row-stands-off',
        weight: 'looks',
        lines: [i],
        says:
          `Row ${i + 1} is ${inMm(2 * offMm)} ${gone} than row ${i}: its ends stand off by ${inMm(offMm)}, with ` +
          `${inMm(bareMm)} of bare wire on each side. ` +
          (mends ? `Put a row of ${nameOf(put)} between them.` : 'Let them differ by less.'),
      })
    }
    return out
  })
}

function layoutOf(work: Work, all: Measured) {
  const { own, rows, at, tallMm, wideMm } = all
  const top = topMm(own)
  const middle = wideMm / 2
  const yOf = (i: number) => top + tallMm - at[i]!
  const placed = rows.flatMap((row, r) => {
    let x = middle - widthOf(row) / 2
    return row.map((bead, c): PlacedBead => {
      x += bead.l
      return { key: keyOf(work.columns, c, r), x: x - bead.l / 2, y: yOf(r), turnDegrees: 0, bead }
    })
  })
  const thickMm = wireDiameterMm(own.gauge)
  const wire = (points: Carrier['points']): Carrier => ({ kind: 'wire', thickMm, points })
  const sides = [-1, 1].map((side) =>
    wire(rows.flatMap((row, r) => [{ x: middle + (side * widthOf(row)) / 2, y: yOf(r) }])),
  )
  const last = rows.at(-1)
  const loopR = (own.pliers + thickMm) / 2
  const on = (y: number) => ({ x: middle, y })
  const neck = top - twistLong(own)
  const half = last ? widthOf(last) / 2 : 0
  const closing = last
    ? [
        // Both ends run in over the last row, twist, and end in the loop.
        ...[-half, half].map((x) => wire([{ x: middle + x, y: yOf(rows.length - 1) }, on(top - 0.3)])),
        ...twisted(on(top), on(neck), own.twist, thickMm),
        wire([on(neck), on(loopR)]),
        ...(own.loop === 'wrapped'
          ? coil({
              ...{ from: on(neck), to: on(Math.max(loopR, neck - own.wraps * thickMm)), turns: own.wraps },
              ...{ radiusMm: thickMm, thickMm },
            })
          : []),
      ]
    : []
  return {
    placed,
    carriers: [...sides, ...closing, wire(ringPoints(middle, 0, loopR, 24))],
    widthMm: Math.max(wideMm, 2 * loopR),
    lengthMm: top + tallMm,
    hungAt: on(0),
    fixtureAt: () => null,
  }
}

/** Each row: how wide it is, and how far its ends stand off from the row before. */
const tables = (work: Work) => {
  const { rows } = measure(work)
  return [
    {
      title: 'Row by row',
      head: ['Row', 'Width, mm', 'Stands off, mm', 'Bare wire, mm'],
      rows: rows.map((row, r) => {
        const before = rows[r - 1]
        const side = before ? sideOf(before, row) : null
        return [String(r + 1), tenths(widthOf(row)), ...(side ? [tenths(side.offMm), tenths(side.bareMm)] : ['', ''])]
      }),
    },
  ]
}

function guidesOf(all: Measured): Guide[] {
  const { own, rows } = all
  const [{ lengthMm }] = wiresOf(all) as [ReturnType<typeof wiresOf>[number]]
  const first = rows[0] ? widthOf(rows[0]) : 0
  return [
    markedWire('Wire of the ladder', lengthMm, wireDiameterMm(own.gauge), [
      { at: (lengthMm - first) / 2, says: 'first row' },
      { at: (lengthMm + first) / 2, says: 'first row ends' },
    ]),
    {
      title: 'Loop',
      ...{ widthMm: 40, lengthMm: 14 },
      lines: [{ kind: 'tool', thickMm: 0.2, points: ringPoints(7, 7, own.pliers / 2) }],
      labels: [{ x: 12, y: 8, says: `pliers ${tenths(own.pliers)} mm here` }],
      says: ['Mark the pliers where they are as thick as the circle, and turn the loops of both on that mark.'],
    },
  ]
}

/** Rows of tray places by the settings: 0 the part’s bead, 1 the second size. */
function followed(own: Own, small: BeadSpec, large: BeadSpec): number[][] {
  if (own.outline === 'own') return Array.from({ length: own.rows }, () => [0])
  // The outline asks for a smaller and a larger bead, whichever is which on the tray.
  const [a, b] = small.l <= large.l ? [small, large] : [large, small]
  const parts = rowsFollowing(outlineWidths(own.outline, own.rows, own.widest), a, b)
  const rows = small.l <= large.l ? parts : parts.map((row) => row.map((k) => 1 - k))
  return own.turned ? rows.reverse() : rows
}

const SIZES = ['round-8'] as const
const partsKept = new WeakMap<Settings, { readonly bead: string; readonly parts: number[][] }>()
function partsOf({ settings: own, bead }: Pick<Work, 'bead' | 'settings'>): number[][] {
  let known = partsKept.get(own)
  if (known?.bead !== bead.id) {
    known = { bead: bead.id, parts: followed(read(own), bead, requireSpec(SIZES[0])) }
    partsKept.set(own, known)
  }
  return known.parts
}

/** Settings that its rows follow. */
const FOLLOWED = ['outline', 'rows', 'widest', 'turned'] as const

/** Rows as the outline asks for them, colours kept where a row stays as it is. */
function full(lines: readonly (readonly number[])[], work: Work, from?: Settings): number[][] {
  const own = read(work.settings)
  const beads = new Map<number, BeadSpec>()
  lines.forEach((line, r) => line.forEach((number, c) => beads.set(number, work.beadAt?.(c, r) ?? work.bead)))
  if (own.outline === 'own' || !differs(from, work.settings, FOLLOWED) || beads.size === 0)
    return lines.map((line) => [...line])
  const by = (better: (a: BeadSpec, b: BeadSpec) => boolean) =>
    [...beads].reduce((best, one) => (better(one[1], best[1]) ? one : best))
  const [smallNumber, small] = by((a, b) => a.l < b.l)
  const [largeNumber, large] = by((a, b) => a.l > b.l)
  const rows = followed(own, small, large)
  return rows.map((parts, r) => {
    const line =
      lines[Math.min(lines.length - 1, Math.round((r * (lines.length - 1)) / Math.max(1, rows.length - 1)))] ?? []
    const wanted = parts.map((part) => (part === 0 ? small : large).id)
    const here = line.map((number) => beads.get(number)!.id)
    if (wanted.join() === here.join()) return [...line]
    // Of one size the row keeps its colours about its middle.
    if (line.length > 0 && new Set([...wanted, ...here]).size === 1) return resizedAbout(line, wanted.length)
    return parts.map((part) => (part === 0 ? smallNumber : largeNumber))
  })
}

function sizedTo(lengthMm: number, work: Work): Sizing[] {
  const all = measure(work)
  const { own } = all
  if (own.outline === 'own') return []
  const each = all.tallMm / Math.max(1, all.rows.length)
  const exact = (lengthMm - topMm(own)) / Math.max(0.5, each)
  return [...new Set([Math.round(exact), Math.floor(exact), Math.ceil(exact)])]
    .filter((rows) => rows >= 2 && rows <= 60)
    .map((rows) => ({ settings: settings.parse({ ...work.settings, rows }), says: `${rows} rows` }))
}

export const wireLadder = wireWork({
  id: 'wire-ladder',
  name: 'Wire ladder',
  summary: 'Both ends of a wire cross in every row: triangles, petals, drops and diamonds in two sizes.',
  settings,
  fields: [
    {
      ...{
        key: 'outline',
        label: 'Outline',
        help: 'Rows follow it with the least bare wire.',
        kind: 'choice' as const,
      },
      choices: SHAPES.map((value) => ({ value, label: value === 'own' ? 'rows of my own' : value })),
    },
    {
      key: 'rows',
      label: 'Rows',
      help: 'That follow the outline.',
      kind: 'count',
      counts: (own) => read(own).outline !== 'own',
    },
    {
      key: 'widest',
      label: 'Widest',
      help: 'Where the outline is widest.',
      kind: 'length',
      counts: (own) => read(own).outline !== 'own',
    },
    {
      key: 'turned',
      label: 'Begun at the other end',
      help: 'The row that was the last is strung first; the loop is at the last.',
      kind: 'flag',
      counts: (own) => read(own).outline !== 'own',
    },
    gaugeField('gauge', 'Wire, gauge', '28 is 0.32 mm, for 11/0; 26 is 0.4 mm, for 8/0.', [22, 34], true),
    hardnessField,
    { key: 'twist', label: 'Twist', help: 'Turns of both ends before the loop.', kind: 'number' },
    {
      key: 'loop',
      label: 'Loop',
      help: 'Both of a pair on the same mark of the pliers.',
      kind: 'choice',
      choices: [
        { value: 'simple', label: 'simple' },
        { value: 'wrapped', label: 'wrapped' },
      ],
    },
    {
      key: 'wraps',
      label: 'Turns of the wrap',
      help: 'Round the neck.',
      kind: 'count',
      counts: (own) => read(own).loop === 'wrapped',
    },
    { key: 'pliers', label: 'Pliers', help: 'Thickness of the round nose at the mark.', kind: 'length' },
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'round-11' },
  kinds: ['earrings', 'pendant'],
  closure: 'ear-wire',
  words: {
    line: 'row',
    place: 'bead',
    across: 'in the widest row',
    acrossTitle: 'Widest row',
    thing: 'Ladder',
    sample: {
      name: 'sample',
      how: 'Work some rows and lay a rule along them.',
      counted: 'Rows counted',
      where: 'From row to row.',
      wide: true,
    },
  },
  first: {
    sizes: SIZES,
    edge: 0,
    period: ({ settings: own }) => read(own).rows,
    parts: (r, _count, work) => partsOf(work)[r] ?? [],
  },
  shape(work, rows) {
    const all = measure(work, rows)
    return {
      layout: layoutOf(work, all),
      lengthMm: longMm(all),
      widthMm: all.wideMm,
      thicknessMm: all.thickMm,
      lengthFormula:
        `${rows.length} rows, each nested in the one before: ${inMm(all.tallMm)} + twist and loop ` +
        inMm(topMm(all.own)),
      widthFormula: `widest row ${inMm(all.wideMm)}`,
      wires: wiresOf(all),
      guides: guidesOf(all),
      findings: findings(all),
    }
  },
  program(work, rows) {
    const { own } = measure(work, rows)
    const names = ['one', 'other'] as const
    const lacings = rows.map((row, r): Lacing[] => {
      const at = row.map((_, c) => c)
      const [by, other] = r % 2 === 0 ? names : [names[1], names[0]]
      const { offMm = 0 } = r > 0 && rows[r - 1]!.length > 0 && row.length > 0 ? sideOf(rows[r - 1]!, row) : {}
      const note =
        offMm > 0.05
          ? `${tenths(offMm)} mm ${widthOf(row) > widthOf(rows[r - 1]!) ? 'further out' : 'further in'} on each side`
          : ''
      return [
        { do: 'pick', by, at, ...(r === 0 ? { note: 'to the middle of the wire' } : note ? { note } : {}) },
        ...(r > 0
          ? [{ do: 'pass', by: other, at: at.toReversed(), way: 'back', note: 'draw both ends tight' } as const]
          : []),
        ...(r === rows.length - 1
          ? [
              {
                do: 'say',
                text: `twist both ends ${own.twist} turns and turn the ${own.loop} loop on the mark`,
              } as const,
            ]
          : []),
      ]
    })
    const carrier = (id: string, name: string) => ({ id, name, kind: 'wire' as const, mm: wireDiameterMm(own.gauge) })
    return laced(rows, lacings, {
      unit: 'row',
      carriers: [carrier('one', 'one end'), carrier('other', 'other end')],
      fixtures: {},
      cut: { folded: true, each: 'piece' },
    })
  },
  // Its eye lies in its plane.
  eyeAcross: () => false,
  side: { upright: true, full, sizedTo, tables },
  lengthOf: (work) => (work.lineLength ? longMm(measure(work)) : work.rows * safePitchMm([work.bead], [work.bead])),
  rowsFor: (_mm, work) => read(work.settings).rows,
  firstLines: (count, work) => Array.from({ length: count }, (_, r) => (partsOf(work)[r] ?? [0]).length),
  workplace: (work) => ({
    tools: ['Round-nose pliers', 'Chain-nose pliers', 'Flush cutter', 'File', 'Eye protection'],
    needs: [],
    ready: [
      {
        id: 'mark',
        text: `Mark the round-nose pliers where they are ${tenths(read(work.settings).pliers)} mm thick`,
        minutes: 1,
      },
      { id: 'middle', text: 'Mark the middle of the wire: the first row lies there', minutes: 1 },
    ],
    cautions: WIRE_CAUTIONS,
    fasten: {
      title: 'Twist and loop',
      says: [
        'Bring both ends over the last row, hold the row with nylon jaws and twist them evenly.',
        'Turn the loop on the mark, close it, cut the rest and press its end in.',
      ],
      minutes: 5,
      cautions: [TUCKED],
    },
    mirror: 'It is the mirror of the first: string every row from its end. Read left for right in what follows.',
    pair: {
      title: 'Lay the pair together',
      says: ['Lay one upon the other: rows and loops should cover each other, and the loops face the same way.'],
      minutes: 2,
    },
    glued: false,
  }),
})
