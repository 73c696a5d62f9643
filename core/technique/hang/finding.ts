import { z } from 'zod'
import { problem } from '../../problem'
import { plainNumber } from '../../units/length'
import type { Carrier } from '../drawing'
import { freeDrawing } from '../drawing'
import type { Holds } from '../held'
import type { Point } from '../lattice'
import type { Settings } from '../setting'
import type { Strung } from '../strung'
import { rangeOf, type Work } from '../technique'

/**
 * A bought finding that beadwork hangs on: a bar with holes, a plain bar, a hoop; or one that hangs itself: a drop, a
 * tassel. It has no beads; other parts are joined to it.
 */
export const FINDINGS = ['holes', 'bar', 'hoop', 'drop', 'tassel', 'strap'] as const
export type FindingKind = (typeof FINDINGS)[number]

const settings = z.strictObject({
  kind: z.enum(FINDINGS).default('holes'),
  holes: z.int().min(1).max(60).default(9).describe('Holes in a row'),
  pitch: z.number().min(0.5).max(40).default(2.6).describe('From hole to hole, mm'),
  across: z.number().min(1).max(400).default(25).describe('Width; of a hoop its outside diameter, mm'),
  tall: z.number().min(0).max(2000).default(8).describe('From its loop to where beads hang; length of what hangs, mm'),
  thick: z.number().min(0.2).max(20).default(1).describe('Wire or bar, mm'),
  grams: z.number().min(0).max(500).default(0.6).describe('Weight, g'),
  eye: z.enum(['flat', 'across']).default('flat').describe('Its loop lies in its face, or stands across it'),
})

type Own = z.infer<typeof settings>
const read = (own: Settings): Own => settings.parse(own)

/** A loop to hang it by, mm across, outside. */
const LOOP_MM = 3

/** How wide it is, mm. */
function widthOf(own: Own): number {
  switch (own.kind) {
    case 'holes':
      return (own.holes - 1) * own.pitch + 2 * EDGE_MM
    default:
      return own.across
  }
}
/** Metal beside the outermost hole, mm. */
const EDGE_MM = 1.4

/** How long it is from its loop to its lower edge, mm. */
const tallOf = (own: Own): number => Math.max(0.1, own.kind === 'hoop' ? own.across + LOOP_MM - own.thick : own.tall)

const circle = ({ x, y }: Point, radius: number, steps = 48): Point[] =>
  Array.from({ length: steps + 1 }, (_, k) => {
    const turn = (2 * Math.PI * k) / steps
    return { x: x + radius * Math.sin(turn), y: y - radius * Math.cos(turn) }
  })

/** What is seen of it, from its upper edge. */
function outline(own: Own): Carrier[] {
  const { kind, thick, holes, pitch, across } = own
  const [width, tall] = [widthOf(own), tallOf(own)]
  const middle = width / 2
  const line = (points: readonly Point[], mm = thick, what: Carrier['kind'] = 'bar'): Carrier => ({
    kind: what,
    thickMm: mm,
    points,
  })
  const loop = line(circle({ x: middle, y: LOOP_MM / 2 }, (LOOP_MM - 0.8) / 2, 20), 0.8, 'wire')
  switch (kind) {
    case 'holes': {
      // A fan of metal from the loop to the row of holes.
      const y = tall - thick / 2
      const foot = [
        { x: EDGE_MM, y },
        { x: middle, y: Math.min(LOOP_MM, tall) },
        { x: width - EDGE_MM, y },
      ]
      const at = (hole: number): Point => ({ x: EDGE_MM + hole * pitch, y })
      return [
        loop,
        line(foot, 0.8, 'wire'),
        line([at(0), at(holes - 1)]),
        ...Array.from({ length: holes }, (_, hole) => line(circle({ ...at(hole), y: y + 0.2 }, 0.55, 12), 0.35)),
      ]
    }
    case 'bar':
      return [
        loop,
        line(
          [
            { x: middle, y: Math.min(LOOP_MM, tall) },
            { x: middle, y: tall - thick / 2 },
          ],
          0.8,
          'wire',
        ),
        line([
          { x: thick / 2, y: tall - thick / 2 },
          { x: width - thick / 2, y: tall - thick / 2 },
        ]),
      ]
    case 'hoop':
      return [loop, line(circle({ x: middle, y: tall - across / 2 }, (across - thick) / 2), thick, 'wire')]
    case 'drop': {
      const bulb = Math.min(width / 2, Math.max(0.1, tall - LOOP_MM) / 2)
      const y = tall - bulb
      const sides = Array.from({ length: 25 }, (_, k) => {
        const turn = -Math.PI * 0.72 + (Math.PI * 1.44 * k) / 24
        return { x: middle + bulb * 0.86 * Math.sin(turn), y: y + bulb * 0.86 * Math.cos(turn) }
      })
      const top = { x: middle, y: LOOP_MM }
      return [loop, line([top, ...sides, top], Math.max(thick, bulb * 0.28))]
    }
    case 'tassel': {
      const cap = Math.min(tall, LOOP_MM + width * 0.6)
      return [
        loop,
        line(
          [
            { x: middle, y: LOOP_MM },
            { x: middle, y: cap },
          ],
          width * 0.5,
        ),
        ...Array.from({ length: 9 }, (_, k) => {
          const x = middle + ((k - 4) / 4) * (width / 2 - 0.3)
          return line(
            [
              { x: middle + (x - middle) * 0.5, y: cap },
              { x, y: tall - 0.2 },
            ],
            0.5,
            'thread',
          )
        }),
      ]
    }
    case 'strap': {
      // Only its lowest bend is shown; how long it is stands in its figures.
      const points = Array.from({ length: 25 }, (_, k) => {
        const share = k / 12 - 1
        return {
          x: middle + share * (middle - thick),
          y: DRAWN_STRAP_MM - thick / 2 - (DRAWN_STRAP_MM - thick) * share ** 2,
        }
      })
      return [line(points, thick, 'cord')]
    }
  }
}

/** Of a strap only so much is drawn, mm. */
const DRAWN_STRAP_MM = 18

const lengthOf = (own: Own): number => (own.kind === 'strap' ? DRAWN_STRAP_MM : tallOf(own))

/** What a hoop carries on its outside: as many beads as lie side by side on its circumference. */
export const beadsRound = (outsideMm: number, wideMm: number): number =>
  Math.floor((Math.PI * outsideMm) / wideMm + 1e-9)

const NOTHING: Holds = { places: [], bentMm: null, room: null }

function holds({ settings: given }: Pick<Work, 'settings'>, side: 'start' | 'end' | 'left' | 'right'): Holds {
  const own = read(given)
  if (side !== 'end') return NOTHING
  switch (own.kind) {
    case 'holes':
      return {
        ...NOTHING,
        places: Array.from({ length: own.holes }, (_, hole) => ({
          x: (hole - (own.holes - 1) / 2) * own.pitch,
          y: 0,
        })),
      }
    case 'bar':
      return { ...NOTHING, room: (wide) => Math.floor(own.across / wide + 1e-9) }
    case 'hoop':
      return { ...NOTHING, bentMm: own.across / 2, room: (wide) => beadsRound(own.across, wide) }
    default:
      return NOTHING
  }
}

/** What such a finding is called. */
export const FINDING_NAMES: Readonly<Record<FindingKind, string>> = {
  holes: 'Bar with holes',
  bar: 'Bar',
  hoop: 'Hoop',
  drop: 'Drop',
  tassel: 'Tassel',
  strap: 'Cord or chain to wear it on',
}

/** What to ask for in a shop; nothing of a strap, which is cut. */
function boughtAs(own: Own): string {
  const mm = (value: number) => `${plainNumber(value)} mm`
  switch (own.kind) {
    case 'holes':
      return `Bar with ${own.holes} holes, ${mm(own.pitch)} apart`
    case 'bar':
      return `Bar, ${mm(own.across)} wide`
    case 'hoop':
      return `Hoop, ${mm(own.across)} across outside`
    case 'drop':
      return `Drop, ${mm(own.across)} × ${mm(own.tall)}`
    case 'tassel':
      return `Tassel, ${mm(own.tall)} long`
    case 'strap':
      return ''
  }
}

export const finding: Strung = {
  id: 'finding',
  name: 'Finding',
  summary: 'A bought bar with holes, hoop, drop or tassel: no beads of its own; other parts hang on it.',
  settings,
  fields: [
    {
      key: 'kind',
      label: 'What it is',
      help: 'Beadwork hangs on the first three; the others hang themselves.',
      kind: 'choice',
      choices: FINDINGS.map((value) => ({ value, label: FINDING_NAMES[value].toLowerCase() })),
    },
    { key: 'holes', label: 'Holes', help: 'In a row, of a bar with holes.', kind: 'count' },
    { key: 'pitch', label: 'Hole to hole', help: 'From middle to middle.', kind: 'length' },
    { key: 'across', label: 'Across', help: 'Width of a bar, drop or tassel; of a hoop its outside.', kind: 'length' },
    { key: 'tall', label: 'Tall', help: 'From its loop to where beads hang, or to its lowest end.', kind: 'length' },
    { key: 'thick', label: 'Thick', help: 'The wire or bar.', kind: 'length' },
    { key: 'grams', label: 'Weighs, g', help: 'One of them; it counts in the weight of an earring.', kind: 'number' },
    {
      key: 'eye',
      label: 'Its loop',
      help: 'Which way it faces follows from that, and from rings between.',
      kind: 'choice',
      choices: [
        { value: 'flat', label: 'lies in its face' },
        { value: 'across', label: 'stands across it' },
      ],
    },
  ],
  plan: z.strictObject({}),
  making: 'hang',
  kinds: [],
  words: {
    line: 'line',
    place: 'bead',
    across: 'beads',
    acrossTitle: 'Beads',
    thing: 'Finding',
    sample: { name: 'sample', how: 'Measure it with a caliper.', counted: 'Findings', where: '', wide: false },
  },
  drawing({ settings: given, bead }) {
    const own = read(given)
    return freeDrawing({
      placed: [],
      carriers: outline(own),
      widthMm: widthOf(own),
      lengthMm: lengthOf(own),
      bead,
    })
  },
  extent({ settings: given }) {
    const own = read(given)
    const [width, length] = [widthOf(own), lengthOf(own)]
    return {
      lengthMm: rangeOf(length, 0),
      widthMm: rangeOf(width, 0),
      thicknessMm: own.thick,
      basis: { kind: 'nominal', spread: 0 },
      lengthFormula: own.kind === 'hoop' ? `loop and ${own.across} mm of hoop` : `${length} mm of ${own.kind}`,
      widthFormula: own.kind === 'holes' ? `${own.holes} holes, ${own.pitch} mm apart, and its edges` : 'as bought',
    }
  },
  path({ settings: given }) {
    const own = read(given)
    return {
      passes: 0,
      runs:
        own.kind === 'strap'
          ? [
              {
                id: 'cord',
                name: 'Cord or chain to wear it on',
                count: 1,
                joined: false,
                lengthMm: own.tall,
                formula: `${plainNumber(own.tall)} mm, as long as the necklace`,
              },
            ]
          : [],
    }
  },
  lengthOf: ({ settings: given }) => lengthOf(read(given)),
  rowsFor: () => 0,
  firstLines: () => [],
  workplace: ({ settings: given }) => ({
    tools: [],
    needs: [{ name: boughtAs(read(given)), count: 1, says: '' }].filter(({ name }) => name !== ''),
    ready: [],
    glued: false,
  }),
  holds,
  apart: ({ settings: given }) => read(given).kind === 'strap',
  eyeAcross: (given) => read(given).eye === 'across',
  grams: ({ settings: given }) => read(given).grams,
  check: ({ rows }) =>
    rows > 0 ? [problem('finding-beads', 'lines', 'A finding has no beads of its own: hang another part on it.')] : [],
}
