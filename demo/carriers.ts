import { raggedFrom } from '../core/grid/lines'
import { sized } from '../core/piece/sizes'
import type { Part, Piece } from '../core/piece/piece'
import { costSchema, fitSchema, supplySchema } from '../core/piece/schema'
import { requireTechnique } from '../core/technique/registry'
import { usualClosure } from '../core/wear/closure'
import { trayOf } from './plan'

/** Work on threads, cords, pins and cuffs that no grid decides. */

interface Strung {
  readonly name: string
  readonly notes: string
  readonly tray: Piece['tray']
  readonly fit: Partial<Piece['fit']>
  readonly part: Pick<Part, 'name' | 'technique' | 'times'> & {
    readonly settings?: Part['settings']
    readonly plan?: unknown
    readonly start: readonly (readonly number[])[]
    readonly repeat: readonly (readonly number[])[]
    readonly end: readonly (readonly number[])[]
  }
  readonly supply?: Partial<Piece['supply']>
}

/** A piece of one part of lines, drawn for the first bead of its tray. */
export function strung({ name, notes, tray, fit, part, supply = {} }: Strung): Piece {
  const technique = requireTechnique(part.technique)
  return sized({
    ...{ name, notes, tray },
    fit: fitSchema.parse({
      kind: 'bracelet',
      bodyMm: 165,
      easeMm: 13,
      closure: usualClosure('toggle'),
      widthMm: 9,
      ...fit,
    }),
    gauges: [],
    meant: [],
    supply: supplySchema.parse(supply),
    cost: costSchema.parse({}),
    parts: [
      {
        ...{ id: 'band', name: part.name, technique: part.technique, times: part.times, on: null },
        spec: tray[0]!.spec,
        settings: technique.settings.parse(part.settings ?? {}),
        ...(technique.plan ? { plan: technique.plan.parse(part.plan ?? {}) } : {}),
        start: raggedFrom(part.start),
        repeat: raggedFrom(part.repeat),
        end: raggedFrom(part.end),
      },
    ],
  })
}

/** So many of each number, one after the other. */
const runs = (...of: readonly (readonly [count: number, number: number])[]): number[] =>
  of.flatMap(([count, number]) => Array<number>(count).fill(number))

/** Rungs of a boat ladder: the middle cube wanders from side to side, the seeds beside it answer. */
const BOAT_LADDER = 24
const WANDER = [0, 1, 2, 1] as const

const boatLadder = (): Piece => {
  const rung = (r: number): number[] => [0, 1, 2].map((k) => (k === WANDER[r % 4] ? 3 : r % 2 === 0 ? 1 : 2))
  const lead = [4, 4, 5, 4, 4]
  const sides = (r: number): number[] => [4, r % 2 === 0 ? 5 : 4, 4]
  const four = [1, 2, 3, 0].map((r) => [...sides(r), ...sides(r + 1), ...rung(r)])
  return strung({
    name: 'Boat ladder',
    notes: 'Draw both needles tight after every rung, or the sides stand out.',
    tray: trayOf('cube-3-mm', [
      ['Tarred plank', '#4b3a33', 'matte'],
      ['Wet rope', '#b7a98a', 'opaque'],
      ['Buoy', '#c4542b', 'lustre'],
      ['Foam', '#dfe3dc', 'lustre', 'round-8'],
      ['Deep water', '#1d5a6b', 'transparent', 'round-8'],
    ]),
    fit: { wearer: 'the fair' },
    part: {
      name: 'Ladder',
      technique: 'rung-ladder',
      times: (BOAT_LADDER - 4) / 4,
      start: [[...lead, ...lead, ...rung(0)]],
      repeat: four,
      end: [...four.slice(0, 2), [...four[2]!, ...lead, ...lead]],
    },
  })
}

/** A twig with a sloe at the end of every leaf: the thread turns round a seed and comes back through leaf and sloe. */
const SLOE_TWIG = `
recipe sloe-twig "Sloe twig"
field s 2..8=3 "Stem beads between two leaves"
field f 3..9=5 "Beads of a leaf"
bead stem round-8 "stem bead" "stem beads"
bead leaf round-11 "leaf bead" "leaf beads"
bead sloe ball-4-mm "sloe" "sloes"
bead turn round-11 "turning seed" "turning seeds"
carrier thread thread 0.15 "thread"
start
  pick stem:loop*7
  pass loop -- "draw the loop round, and knot"
  knot 10
motif
  pick stem*s
  pick leaf*f sloe turn
  pass sloe< leaf[-1..0]< -- "leave the last seed; draw the leaf close to its stem"
end
  pick stem*s stem:loop*7
  pass loop
  knot 10
`

const sloeTwig = (): Piece => {
  const leaf = (k: number): number[] => [
    ...runs([2, 1], [1, k % 2 === 0 ? 2 : 1]),
    ...runs([3, 3], [2, 4], [1, 5], [1, 6]),
  ]
  return strung({
    name: 'Sloe twig',
    notes: 'Leaves fall to both sides by themselves.',
    tray: trayOf('round-8', [
      ['Blackthorn', '#4a3a35', 'matte'],
      ['Lichen', '#b9b58a', 'opaque'],
      ['Leaf green', '#4f7a4a', 'transparent', 'round-11'],
      ['Young leaf', '#9db86a', 'lustre', 'round-11'],
      ['Sloe', '#3a4478', 'matte', 'ball-4-mm'],
      ['Dew', '#dfe7ea', 'transparent', 'round-11'],
    ]),
    fit: { wearer: 'the fair' },
    part: {
      name: 'Twig',
      technique: 'own-recipe',
      settings: { motif: 7.4 },
      plan: { recipe: SLOE_TWIG },
      times: 11,
      start: [runs([7, 1])],
      repeat: [leaf(0), leaf(1)],
      end: [runs([3, 1], [7, 1])],
    },
  })
}

/** Lanterns along a quay, between two cords: a light in every third row, its glow in the seeds beside it. */
const quayLanterns = (): Piece => {
  const row = (k: number): number[] => (k % 4 === 1 ? [4, 2, 4] : k % 4 === 3 ? [5, 3, 5] : [5, 1, 5])
  const taper = [[5], [5, 5], [5, 4, 5]]
  return strung({
    name: 'Quay lanterns',
    notes: 'Push the rows together before the last ten: the cord gives.',
    tray: trayOf('faceted-4-mm', [
      ['Slate', '#3c4a57', 'matte'],
      ['Lantern', '#e0a63a', 'lustre'],
      ['Port light', '#b8473a', 'transparent'],
      ['Glow', '#f0dfae', 'lustre', 'round-8'],
      ['Dusk', '#55627a', 'transparent', 'round-8'],
    ]),
    fit: {
      wearer: 'the fair',
      bodyMm: 165,
      easeMm: 13,
      closure: { ...usualClosure('button'), openings: 2, openingStepMm: 25 },
    },
    part: {
      name: 'Rows',
      technique: 'cord-ladder',
      settings: { row: 3, cord: 2, button: 14 },
      times: 9,
      start: taper,
      repeat: [0, 1, 2, 3].map(row),
      end: [row(0), ...taper.toReversed()],
    },
  })
}

/** Shutters: slanting light that turns back, on pins that stand head and foot in turn. */
const morningShutters = (): Piece => {
  const ON_A_PIN = 14
  const HALF = 10
  const light = (r: number, c: number): number => {
    const shift = r <= HALF ? r : 2 * HALF - r
    const at = (c + shift) % 7
    return at === 0 ? 3 : at <= 2 ? 2 : at === 6 ? 4 : 1
  }
  return strung({
    name: 'Morning shutters',
    notes: 'Lay the pins out in tens before the elastic goes through.',
    tray: trayOf('round-11', [
      ['Shutter green', '#4c6b57', 'matte'],
      ['Straw light', '#e8d27c', 'lustre'],
      ['Noon', '#f6efdb', 'opaque'],
      ['Hinge', '#7b6a4f', 'metallic'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 160, easeMm: 6, closure: usualClosure('elastic'), widthMm: 24 },
    part: {
      name: 'Pins',
      technique: 'pins',
      settings: { pin: 20, stand: 'in turn' },
      times: 4,
      start: [],
      repeat: Array.from({ length: 2 * HALF }, (_, r) => Array.from({ length: ON_A_PIN }, (_, c) => light(r, c))),
      end: [],
    },
  })
}

/** Combs of hexagons on a cuff: two columns of the wire share them, seeds between them up and down. */
const combCuff = (): Piece => {
  const up = (k: number): number[] => runs([2, 3], [1, k % 2 === 0 ? 1 : 2], [1, 3], [1, k % 2 === 0 ? 2 : 1], [2, 3])
  const down = (k: number): number[] => (k % 2 === 0 ? [3, 3, 4, 3, 3] : [3, 4, 3, 4, 3])
  return strung({
    name: 'Comb cuff',
    notes: 'Push the ribs together with a fingernail after every fourth.',
    tray: trayOf('hexagon-6-mm', [
      ['Honey', '#d79a2b', 'transparent'],
      ['Wax', '#ecd9a4', 'matte'],
      ['Pollen', '#c9b24a', 'lustre', 'round-11'],
      ['Soot', '#4b4038', 'matte', 'round-11'],
    ]),
    fit: { kind: 'cuff', wearer: 'the fair', bodyMm: 165, easeMm: 0, closure: usualClosure('none'), widthMm: 20 },
    part: {
      name: 'Ribs',
      technique: 'cuff-ribs',
      settings: { cuff: 20, thick: 1, bare: 13, gauge: 28, turns: 1, ends: 3, shared: true },
      times: 8,
      start: [],
      repeat: [up(0), down(0), up(1), down(1)],
      end: [],
    },
  })
}

export const CARRIER_PIECES: readonly Piece[] = [
  boatLadder(),
  sloeTwig(),
  quayLanterns(),
  morningShutters(),
  combCuff(),
]
