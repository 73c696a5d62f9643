import { z } from 'zod'
import { keyOf } from '../../grid/key'
import { loopWireMm } from '../../hang/pin'
import { laced } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import { wireDiameterMm } from '../../units/wire-gauge'
import { BARE_HOOP_MM, bendMm, hoopWireMm, looseBeads, PLAY_MM, POST_MM, studWireMm } from '../../wire/bent'
import { measured, type Curve, type MeasuredCurve } from '../../wire/curve'
import { placesBetween, type FramePlace } from '../../wire/frame'
import { kinkOffMm, tightestBendMm, wireTakenMm } from '../../wire/section'
import { boxOf, frameOfWidth } from '../../wire/shape'
import { tenths } from '../carrier/line'
import type { Carrier, PlacedBead } from '../drawing'
import type { Point } from '../lattice'
import { BEADS } from '../material'
import type { Finding, Settings, Work } from '../technique'
import type { Guide, Sizing } from '../wire-side'
import { resizedAbout } from './about'
import { highOfRow, longOfRow } from './filling'
import {
  differs,
  gaugeField,
  gaugeSetting,
  HARDNESS,
  hardnessField,
  keptByShape,
  markedWire,
  ringPoints,
  WIRE_CAUTIONS,
  wireWork,
  inMm,
} from './wire-work'

/** Its own wire goes through the ear (usual caution). */
const EAR_CAUTION =
  'What goes through an ear should be made for it: many people bear no nickel. Clean it, and follow the advice of ' +
  'whoever pierced the ear or a doctor if it is sore.'

/**
 * A small shape bent from one piece of wire with loose beads on it: a stud with its post, or a hoop that closes in
 * itself. One line: its beads. docs/wire.md.
 */
const SHAPES = ['bar', 'circle', 'heart', 'hoop'] as const
const settings = z.strictObject({
  shape: z.enum(SHAPES).default('bar'),
  size: z.number().min(4).max(120).default(14).describe('Length of a bar, width of a heart, inside of a hoop, mm'),
  lie: z.enum(['down', 'across']).default('down').describe('How a bar lies'),
  open: z.number().min(0).max(20).default(3).describe('What a circle leaves open at its top, mm'),
  gauge: gaugeSetting.default('20').describe('Wire, by its gauge number: it goes through the ear'),
  hardness: z.enum(HARDNESS).default('half'),
  post: z.number().min(8).max(14).default(POST_MM).describe('Post through the ear and its butterfly, mm'),
  jaw: z.number().min(0.2).max(3).default(0.5).describe('Radius of the jaw that bends are made on, mm'),
  bare: z.number().min(BARE_HOOP_MM).max(60).default(BARE_HOOP_MM).describe('Bare wire of a hoop, mm'),
  pliers: z.number().min(1).max(4).default(1.5).describe('Round-nose pliers for the loop of a hoop, mm'),
})
type Own = Omit<z.infer<typeof settings>, 'gauge'> & { readonly gauge: number }
function read(given: Settings): Own {
  const own = settings.parse(given)
  return { ...own, gauge: Number(own.gauge) }
}

/** The curve that a shape is bent to, and from where to where its beads can lie, mm along it. */
interface Bent {
  readonly curve: MeasuredCurve
  readonly runs: readonly { readonly from: number; readonly to: number }[]
}

function bentTo(own: Own, first: Row[number] | undefined): Bent {
  const a = wireDiameterMm(own.gauge)
  const arc = (radius: number): Curve => ({
    closed: true,
    segments: [{ do: 'arc', middle: { x: 0, y: 0 }, a: radius, b: radius, from: 0, to: 2 * Math.PI }],
  })
  switch (own.shape) {
    case 'bar': {
      const to = own.lie === 'down' ? { x: 0, y: own.size } : { x: own.size, y: 0 }
      const curve = measured({ closed: false, segments: [{ do: 'line', from: { x: 0, y: 0 }, to }] })
      return { curve, runs: [{ from: 0, to: own.size }] }
    }
    case 'circle': {
      const curve = measured(arc(own.size / 2))
      return { curve, runs: [{ from: own.open / 2, to: curve.lengthMm - own.open / 2 }] }
    }
    case 'heart': {
      const curve = frameOfWidth({ shape: 'heart', tall: 2.2, upper: 0.5, corners: 4, rounded: 0.15 }, own.size)
      // Beads keep off the cleft and the point.
      const tau = (at: number) => curve.kinks.find((kink) => Math.abs(kink.at - at) < 1e-6)?.tau ?? 0
      const off = (at: number) => (first ? kinkOffMm(first, tau(at)) : 0)
      const [cleft, point] = [off(0), off(curve.lengthMm / 2)]
      return {
        curve,
        runs: [
          { from: cleft, to: curve.lengthMm / 2 - point },
          { from: curve.lengthMm / 2 + point, to: curve.lengthMm - cleft },
        ],
      }
    }
    case 'hoop': {
      const curve = measured(arc((own.size + a) / 2))
      return { curve, runs: [{ from: own.bare / 2, to: curve.lengthMm - own.bare / 2 }] }
    }
  }
}

/** What a bead takes of a run: by the bend it lies on. */
function takenOn({ curve, runs }: Bent, bead: Row[number]): number {
  const [{ from, to }] = runs as [Bent['runs'][number]]
  const bends = [0.1, 0.3, 0.5, 0.7, 0.9].map((share) => Math.abs(curve.at(from + (to - from) * share).bend))
  const mean = bends.reduce((sum, bend) => sum + bend, 0) / bends.length
  return mean === 0 ? bead.l : (wireTakenMm(bead, 1 / mean) ?? 2 * bead.l)
}

/** How many beads a shape holds loose. */
function beadsFor(own: Own, bead: Row[number]): number {
  const bent = bentTo(own, bead)
  const each = takenOn(bent, bead)
  return bent.runs.reduce((sum, { from, to }) => sum + looseBeads(to - from, each).count, 0)
}

interface Measured extends Bent {
  readonly own: Own
  readonly beads: Row
  readonly places: readonly FramePlace[]
  /** Least play of its runs, mm. */
  readonly playMm: number
}

const measure = keptByShape((work: Work, rows: readonly Row[]): Measured => {
  const own = read(work.settings)
  const beads = rows.flat()
  const bent = bentTo(own, beads[0])
  const each = Math.ceil(beads.length / bent.runs.length)
  const laid = bent.runs.map((run, k) => {
    const part = beads.slice(k * each, (k + 1) * each)
    const { places, gapMm } = placesBetween(bent.curve, part, run)
    return { places, play: part.length > 0 ? gapMm * part.length : Infinity }
  })
  return {
    ...{ own, beads, ...bent },
    places: laid.flatMap(({ places }) => places),
    playMm: Math.min(...laid.map(({ play }) => play)),
  }
})

const isStud = ({ shape }: Own): boolean => shape !== 'hoop'

function wiresOf({ own, curve }: Measured) {
  const a = wireDiameterMm(own.gauge)
  const bend = bendMm(Math.PI / 2, own.jaw, a)
  const shape = own.shape === 'circle' ? curve.lengthMm - own.open : curve.lengthMm
  const loop = loopWireMm(own.pliers)
  return [
    {
      ...{ key: 'wire', name: isStud(own) ? 'Stud with its post' : 'Hoop', gauge: own.gauge, hardness: own.hardness },
      lengthMm: isStud(own)
        ? studWireMm(shape, { wireMm: a, jawMm: own.jaw, postMm: own.post })
        : hoopWireMm(own.size, a, loop),
      formula: isStud(own)
        ? `post ${inMm(own.post)} + 2 bends × ${inMm(bend)} + ${own.shape} ${inMm(shape)} + end 3 mm`
        : `π × (${inMm(own.size)} + ${inMm(a)}) + loop ${inMm(loop)} + hook 5 mm`,
    },
  ]
}

const sizeOf = ({ own, curve, beads }: Measured) => {
  const box = boxOf(curve)
  const thick = Math.max(highOfRow(beads), wireDiameterMm(own.gauge))
  // A bar is as thick as its beads across, and no longer than its wire along.
  const alongY = own.shape === 'bar' && own.lie === 'down'
  const alongX = own.shape === 'bar' && own.lie === 'across'
  return {
    ...{ box, thick },
    lengthMm: box.bottom - box.top + (alongY ? 0 : thick),
    widthMm: box.right - box.left + (alongX ? 0 : thick),
    pad: { x: alongX ? 0 : thick / 2, y: alongY ? 0 : thick / 2 },
  }
}

function curvePoints(curve: MeasuredCurve, from: number, to: number): Point[] {
  const steps = 120
  return Array.from({ length: steps + 1 }, (_, k) =>
    curve.at(from + ((to - from) * Math.min(k, steps - 1e-9)) / steps),
  )
}

/** The wire as it is seen: of a circle without what is open, of a hoop with its loop and hook. */
function wireLines({ own, curve }: Measured): Point[][] {
  const open = own.shape === 'circle' ? own.open / 2 : 0
  const round = curvePoints(curve, open, curve.lengthMm - open)
  if (own.shape !== 'hoop') return [round]
  const top = curve.at(0)
  return [round, ringPoints(top.x + own.pliers, top.y, own.pliers / 2, 20)]
}

/** The post of a stud and its other end, bent to the back: each as it is seen from there, end on. */
function postLines({ own, curve }: Measured): Pick<Carrier, 'points' | 'lies'>[] {
  if (!isStud(own)) return []
  const open = own.shape === 'circle' ? own.open / 2 : 0
  return [open, curve.lengthMm - open].map((mm) => {
    const { x, y } = curve.at(mm)
    return {
      lies: 'behind',
      points: [
        { x, y },
        { x, y },
      ],
    }
  })
}

function layoutOf(work: Work, all: Measured) {
  const { own, places, beads } = all
  const { box, lengthMm, widthMm, pad } = sizeOf(all)
  const move = <P extends Point>(p: P) => ({ ...p, x: p.x - box.left + pad.x, y: p.y - box.top + pad.y })
  let c = -1
  const lengths = Array.from({ length: work.rows }, (_, r) => work.lineLength?.(r) ?? beads.length)
  const keys = lengths.flatMap((length, r) => Array.from({ length }, (_, at) => keyOf(work.columns, at, r)))
  return {
    placed: places.map(({ x, y, turnDegrees }): PlacedBead => {
      c++
      return move({ key: keys[c]!, x, y, turnDegrees, bead: beads[c]! })
    }),
    carriers: [...postLines(all), ...wireLines(all).map((points) => ({ points }))].map(
      ({ points, ...more }): Carrier => ({
        ...{ kind: 'wire', thickMm: wireDiameterMm(own.gauge), ...more },
        points: points.map(({ x, y }) => move({ x, y })),
      }),
    ),
    ...{ widthMm: Math.max(0.1, widthMm), lengthMm: Math.max(0.1, lengthMm) },
    hungAt: move({ x: (box.left + box.right) / 2, y: box.top }),
    fixtureAt: () => null,
  }
}

function findings({ own, curve, beads, playMm }: Measured): Finding[] {
  const out: Finding[] = []
  const [first] = beads
  if (!first) return out
  const most = beadsFor(own, first)
  const even = beads.every(({ id }) => id === first.id)
  if (playMm < PLAY_MM - 1e-6)
    out.push({
      code: 'shape-tight',
      weight: 'stops',
      says:
        `${beads.length} beads leave ${inMm(Math.max(0, playMm))} of play: bends beside them cannot be set. Leave ` +
        `${inMm(PLAY_MM)} at least: take a bead out${even ? `, ${most} fit` : ''}, or bend it larger.`,
    })
  else if (even && beads.length < most)
    out.push({
      code: 'shape-bare',
      weight: 'note',
      says: `There is room for ${most} beads, and ${beads.length} are strung: they will slide.`,
    })
  const a = wireDiameterMm(own.gauge)
  const bend = own.shape === 'bar' ? 0 : Math.abs(curve.at(curve.lengthMm / 4).bend)
  const stiff = beads.find(
    (bead) => bend > 0 && Number.isFinite(tightestBendMm(bead, a)) && tightestBendMm(bead, a) > 1 / bend,
  )
  if (stiff)
    out.push({
      code: 'shape-stiff',
      weight: 'stops',
      says: `${stiff.name} does not slide round this bend on ${own.gauge} gauge: shorter beads, or thinner wire.`,
    })
  if (isStud(own) && (a < 0.6 - 1e-9 || a > 0.82))
    out.push({
      code: 'post-thick',
      weight: 'note',
      says: `Posts are 0.6 to 0.8 mm thick; ${own.gauge} gauge is ${tenths(a)} mm. Take 20 or 22.`,
    })
  return out
}

function guidesOf(all: Measured): Guide[] {
  const { own } = all
  const { box } = sizeOf(all)
  const pad = 8
  const move = ({ x, y }: Point): Point => ({ x: x - box.left + pad, y: y - box.top + pad })
  const a = wireDiameterMm(own.gauge)
  const [{ lengthMm }] = wiresOf(all) as [ReturnType<typeof wiresOf>[number]]
  const bend = bendMm(Math.PI / 2, own.jaw, a)
  const tool = own.shape === 'circle' ? own.size - a : own.shape === 'hoop' ? own.size : 0
  return [
    {
      title: isStud(own) ? 'Shape of the stud' : 'Hoop',
      widthMm: box.right - box.left + 2 * pad,
      lengthMm: box.bottom - box.top + 2 * pad,
      lines: wireLines(all).map((points) => ({ kind: 'wire' as const, thickMm: a, points: points.map(move) })),
      labels: [],
      says: [
        'Bend the wire until it lies on the line; both of a pair against each other.',
        ...(tool > 0 ? [`A mandrel of ${inMm(tool)} bends it.`] : []),
      ],
    },
    markedWire(
      'Wire',
      lengthMm,
      a,
      isStud(own)
        ? [
            { at: own.post, says: 'first bend' },
            { at: lengthMm - 3 - bend, says: 'second bend' },
          ]
        : [{ at: lengthMm - 5 - loopWireMm(own.pliers), says: 'loop; 5 mm of hook at the other end' }],
    ),
  ]
}

function full(lines: readonly (readonly number[])[], work: Work, from?: Settings): number[][] {
  if (!differs(from, work.settings, ['shape', 'size', 'open', 'bare', 'gauge'])) return lines.map((line) => [...line])
  const own = read(work.settings)
  return lines.map((line, r) => {
    const bead = line.length > 0 ? (work.beadAt?.(0, r) ?? work.bead) : null
    return bead && r === 0 ? resizedAbout(line, Math.max(1, beadsFor(own, bead))) : [...line]
  })
}

function sizedTo(lengthMm: number, work: Work): Sizing[] {
  const all = measure(work)
  const { own } = all
  const now = sizeOf(all)
  if (own.shape === 'bar' && own.lie === 'across') return []
  const tall = now.box.bottom - now.box.top
  const size = Math.round(((own.size * (lengthMm - (now.lengthMm - tall))) / Math.max(0.1, tall)) * 10) / 10
  const next = settings.safeParse({ ...work.settings, size })
  return next.success ? [{ settings: next.data, says: `a ${own.shape} of ${inMm(size)}` }] : []
}

export const smallShape = wireWork({
  id: 'wire-shape',
  name: 'Stud or hoop of wire',
  summary: 'A bar, circle, heart or hoop bent from one piece, with loose beads and its own post.',
  settings,
  fields: [
    {
      ...{
        key: 'shape',
        label: 'Shape',
        help: 'A hoop closes in itself; the others have a post.',
        kind: 'choice' as const,
      },
      choices: SHAPES.map((value) => ({ value, label: value })),
    },
    {
      key: 'size',
      label: 'Size',
      help: 'Length of a bar, across a circle or heart, inside of a hoop.',
      kind: 'length',
    },
    {
      key: 'lie',
      label: 'The bar',
      help: 'As it is worn.',
      kind: 'choice',
      choices: [
        { value: 'down', label: 'hangs down' },
        { value: 'across', label: 'lies across' },
      ],
      counts: (own) => read(own).shape === 'bar',
    },
    {
      key: 'open',
      label: 'Left open',
      help: 'At the top of a circle.',
      kind: 'length',
      counts: (own) => read(own).shape === 'circle',
    },
    gaugeField('gauge', 'Wire, gauge', '20 is 0.81 mm, 22 is 0.64 mm: what an ear bears.', [18, 24]),
    hardnessField,
    {
      key: 'post',
      label: 'Post',
      help: 'Through the ear and its butterfly; about 10 mm.',
      kind: 'length',
      counts: (own) => isStud(read(own)),
    },
    {
      key: 'jaw',
      label: 'Jaw',
      help: 'Radius that the bends are made on.',
      kind: 'length',
      counts: (own) => isStud(read(own)),
    },
    {
      key: 'bare',
      label: 'Bare wire',
      help: 'Through the ear and into the catch.',
      kind: 'length',
      counts: (own) => !isStud(read(own)),
    },
    {
      key: 'pliers',
      label: 'Pliers',
      help: 'For the loop that the hook goes into.',
      kind: 'length',
      counts: (own) => !isStud(read(own)),
    },
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'round-8' },
  kinds: ['earrings'],
  closure: 'post',
  words: {
    line: 'wire',
    place: 'bead',
    across: 'on the wire',
    acrossTitle: 'On the wire',
    thing: 'Stud',
    sample: {
      name: 'stud',
      how: 'Bend one, string it, and measure it from its top to its lowest point.',
      counted: 'Studs measured',
      where: 'From top to bottom.',
      wide: true,
    },
  },
  first: {
    sizes: [],
    edge: 0,
    parts: (_r, _count, work) => Array<number>(Math.max(1, beadsFor(read(work.settings), work.bead))).fill(0),
  },
  shape(work, rows) {
    const all = measure(work, rows)
    const { lengthMm, widthMm, thick } = sizeOf(all)
    const { own, beads, playMm } = all
    return {
      layout: layoutOf(work, all),
      ...{ lengthMm, widthMm, thicknessMm: thick },
      lengthFormula:
        `${own.shape} of ${inMm(own.size)}${beads.length > 0 ? `; ${inMm(longOfRow(beads))} of beads` : ''}` +
        (Number.isFinite(playMm) ? `, ${inMm(Math.max(0, playMm))} of play` : ''),
      widthFormula: `${inMm(widthMm)} with its beads`,
      wires: wiresOf(all),
      guides: guidesOf(all),
      findings: findings(all),
    }
  },
  program(work, rows) {
    const { own } = measure(work, rows)
    const stud = isStud(own)
    return laced(
      rows,
      rows.map((row, r) => [
        ...(r === 0 && stud
          ? [{ do: 'say', text: `bend the post, ${inMm(own.post)} long, square to the back` } as const]
          : []),
        ...(r === 0 && !stud
          ? [{ do: 'say', text: 'bend the hoop round a mandrel and turn the loop at one end' } as const]
          : []),
        { do: 'pick', by: 'wire', at: row.map((_, c) => c) },
        ...(r === rows.length - 1
          ? [
              {
                do: 'say',
                text: stud
                  ? 'bend the end under the last bead, cut it flush and file it; file the post round'
                  : 'bend the hook, cut it flush and file it round',
              } as const,
            ]
          : []),
      ]),
      {
        unit: 'wire',
        carriers: [{ id: 'wire', name: 'wire', kind: 'wire', mm: wireDiameterMm(own.gauge) }],
        fixtures: {},
        cut: { folded: false, each: 'piece' },
      },
    )
  },
  side: { upright: true, stands: true, full, sizedTo },
  lengthOf: (work) => (work.lineLength ? sizeOf(measure(work)).lengthMm : read(work.settings).size),
  rowsFor: () => 1,
  firstLines: (count, work) =>
    Array.from({ length: count }, () => Math.max(1, beadsFor(read(work.settings), work.bead))),
  workplace: (work) => {
    const stud = isStud(read(work.settings))
    return {
      tools: [
        ...['Round-nose pliers', 'Chain-nose pliers', 'Flush cutter', 'File', 'Cup burr or fine abrasive'],
        ...(stud ? [] : ['Mandrel or anything round']),
        'Eye protection',
      ],
      needs: stud ? [{ name: 'Butterfly backs', count: 1, says: 'one for each post' }] : [],
      ready: [
        { id: 'straighten', text: 'Draw the wire through nylon jaws until it is straight', minutes: 1 },
        { id: 'file', text: 'File the end that goes through the ear round and smooth', minutes: 3 },
      ],
      cautions: [...WIRE_CAUTIONS, EAR_CAUTION],
      fasten: {
        title: stud ? 'File the post' : 'File the end',
        says: [
          `File the end ${stud ? 'of the post' : 'that goes through the ear'} round; run it over a fingertip and a ` +
            'stocking before it goes near an ear.',
        ],
        minutes: 4,
        cautions: [EAR_CAUTION],
      },
      // A stud is its own post, and a hoop its own catch.
      clasp: () =>
        stud
          ? {
              title: 'Set the butterfly',
              says: ['Push it on the post from behind, as far in as an ear is thick: the front should lie flat.'],
              minutes: 1,
            }
          : {
              title: 'Try the catch',
              says: ['Close the hoop: the hook should click into its loop and hold when it is shaken.'],
              minutes: 1,
            },
      mirror:
        'It is the mirror of the first: string its beads from the other end. Read left for right in what follows.',
      pair: {
        title: 'Lay the pair together',
        says: ['Lay one upon the other, face to face: bends and beads should cover each other.'],
        minutes: 2,
      },
      glued: false,
    }
  },
  mostLines: 60,
})
