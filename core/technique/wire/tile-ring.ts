import { z } from 'zod'
import { requireSpec, type BeadSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { laced, type Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import { wireDiameterMm } from '../../units/wire-gauge'
import { ringSize } from '../../units/ring-size'
import { roundOfTiles, TILES, tilesFor, type RoundTiles } from '../../wire/tile-ring'
import { resized, tenths } from '../carrier/line'
import type { Carrier, PlacedBead } from '../drawing'
import { BEADS } from '../material'
import { meeting, type Finding, type Settings, type Work } from '../technique'
import type { Guide } from '../wire-side'
import {
  differs,
  gaugeField,
  gaugeSetting,
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
 * A ring of beads with two holes on a wire folded in two: one leg through each hole, seeds between on each leg. A line
 * is a tile, the seeds behind it on the first leg, and those on the second. docs/wire.md.
 */
const settings = z.strictObject({
  seeds: z.int().min(0).max(4).default(2).describe('Seeds between two tiles on each wire'),
  joint: z.number().min(0).max(6).default(0).describe('What the closing leaves open, mm'),
  gauge: gaugeSetting.default('24').describe('Wire, by its gauge number'),
  hardness: z.enum(HARDNESS).default('soft'),
})
type Own = Omit<z.infer<typeof settings>, 'gauge'> & { readonly gauge: number }
function read(given: Settings): Own {
  const own = settings.parse(given)
  return { ...own, gauge: Number(own.gauge) }
}

const USUAL_TILE = 'half-tile-5-x-2-3-mm'
const USUAL_SEED = 'round-8'
const CLOSING =
  'bring both legs through the first tile, draw the ring close on the mandrel, and wrap the ends between seeds'
/** What is left of each leg to close the ring with, mm (common practice: 20 cm doubled for a ring of ten). */
const CLOSE_MM = 33

/** A line in what it is made of: its tile, and the seeds on each leg. */
function rolesOf(row: Row): {
  readonly tile: number
  readonly first: readonly number[]
  readonly second: readonly number[]
} {
  const tile = row.length === 0 ? -1 : 0
  const rest = Math.max(0, row.length - 1)
  const half = Math.ceil(rest / 2)
  return {
    tile,
    first: Array.from({ length: half }, (_, k) => 1 + k),
    second: Array.from({ length: rest - half }, (_, k) => 1 + half + k),
  }
}

interface Measured {
  readonly own: Own
  readonly rows: readonly Row[]
  readonly tile: BeadSpec
  readonly seed: BeadSpec
  readonly round: RoundTiles
  readonly thickMm: number
}

function roundFor(own: Own, tiles: number, tile: BeadSpec, seed: BeadSpec, seeds: number): RoundTiles {
  return roundOfTiles({ tiles, tile, seeds, seed, jointMm: own.joint })
}

const thickOf = (tile: BeadSpec, seed: BeadSpec, seeds: number): number =>
  Math.max(tile.thick ?? tile.d, seeds > 0 ? seed.d : 0)

const measure = keptByShape((work: Work, rows: readonly Row[]): Measured => {
  const own = read(work.settings)
  const tile = rows.find((row) => row.length > 0)?.[0] ?? work.bead
  const all = rows.flatMap((row) => row.slice(1))
  const seed = all[0] ?? requireSpec(USUAL_SEED)
  const tiles = Math.max(1, rows.filter((row) => row.length > 0).length)
  const seeds = all.length / (2 * tiles)
  return { own, rows, tile, seed, round: roundFor(own, tiles, tile, seed, seeds), thickMm: thickOf(tile, seed, seeds) }
})

/** The length that the fit reckons with: the inside, and the way of its middle beyond that. */
const lengthOf = (round: RoundTiles, thickMm: number): number => round.insideMm + Math.PI * thickMm

function findings({ own, rows, round, tile, seed }: Measured): Finding[] {
  const out: Finding[] = []
  if (rows.length > 0 && rows.length < TILES.least)
    out.push({
      code: 'ring-few',
      weight: 'stops',
      says: `${rows.length} tiles do not close round a finger: take ${TILES.least} at least.`,
    })
  if (tile.spacing === undefined && rows.length > 0)
    out.push({
      code: 'ring-tile',
      weight: 'stops',
      says: `${tile.name} has one hole: the first bead of each line needs two, one for each leg of the wire.`,
    })
  const odd = rows.findIndex((row) => row.length > 0 && row.length % 2 === 0)
  if (odd >= 0)
    out.push({
      code: 'ring-unequal',
      weight: 'note',
      says: `Behind tile ${odd + 1} the two wires carry unlike counts of seeds: the ring will turn there.`,
    })
  const unlike = rows.findIndex((row) => row.length > 0 && row.length !== 1 + 2 * own.seeds)
  if (unlike >= 0 && odd < 0)
    out.push({
      code: 'ring-seeds',
      weight: 'note',
      says:
        `Behind tile ${unlike + 1} lie ${(rows[unlike]!.length - 1) / 2} seeds on each wire, elsewhere ` +
        `${own.seeds}: meant so, it tunes the size by about a seed.`,
    })
  if (round.seedsFirst && rows.length > 0)
    out.push({
      code: 'ring-thick-seeds',
      weight: 'note',
      says: `${seed.name} is thicker than the tiles: the finger feels the seeds. The size is reckoned to them.`,
    })
  return out
}

/** The ring laid flat, as it is strung: tiles below each other, a leg of the wire through each of their holes. */
function layoutOf(work: Work, all: Measured) {
  const { own, rows, tile, round } = all
  const aside = (tile.spacing ?? tile.d / 2) / 2
  const middle = tile.d / 2
  const placed: PlacedBead[] = []
  let y = 0
  rows.forEach((row, r) => {
    const { first, second } = rolesOf(row)
    const put = (c: number, x: number, at: number) =>
      placed.push({ key: keyOf(work.columns, c, r), x, y: at, turnDegrees: 90, bead: row[c]! })
    const [head] = row
    if (!head) return
    put(0, middle, y + head.l / 2)
    y += head.l
    const legs = [first, second].map((leg, k) => {
      let at = y + round.gapsMm[0]
      for (const c of leg) {
        put(c, middle + (k === 0 ? -aside : aside), at + row[c]!.l / 2)
        at += row[c]!.l + round.gapsMm[1]
      }
      return at
    })
    y = Math.max(y, ...legs) + (first.length > 0 ? round.gapsMm[0] - round.gapsMm[1] : round.gapsMm[1])
  })
  const thickMm = wireDiameterMm(own.gauge)
  const out = 4
  const carriers = [-1, 1].map((side): Carrier => ({
    ...{ kind: 'wire', thickMm },
    points: [
      { x: middle, y: -out / 2 },
      { x: middle + side * aside, y: 0 },
      { x: middle + side * aside, y: Math.max(0.1, y) },
    ],
  }))
  return { placed, carriers, widthMm: tile.d, lengthMm: Math.max(0.1, y), fixtureAt: () => null }
}

function wiresOf({ own, round, rows }: Measured) {
  return rows.length === 0
    ? []
    : [
        {
          ...{ key: 'wire', name: 'Wire of the ring, folded in two', gauge: own.gauge, hardness: own.hardness },
          lengthMm: 2 * (round.wireMm + CLOSE_MM),
          formula: `2 legs × (once round ${inMm(round.wireMm)} + ${CLOSE_MM} mm to close with)`,
        },
      ]
}

/** Seeds between by one, two and three: the counts of tiles that come nearest to the size, and by how much. */
function tables(work: Work, wantedMm: number) {
  const { own, tile, seed } = measure(work)
  return [
    {
      title: 'Seeds between, side by side',
      head: ['Seeds', 'Tiles', 'ISO', 'US', 'Off, mm'],
      rows: [1, 2, 3].flatMap((seeds) =>
        tilesFor(wantedMm, { tile, seed, seeds, jointMm: own.joint }).map(({ tiles, insideMm }) => [
          String(seeds),
          String(tiles),
          tenths(insideMm),
          String(ringSize(insideMm).us),
          `${insideMm >= wantedMm ? '+' : '−'}${tenths(Math.abs(insideMm - wantedMm))}`,
        ]),
      ),
    },
  ]
}

function guidesOf(all: Measured): Guide[] {
  const { own, round, rows } = all
  const wires = wiresOf(all)
  if (wires.length === 0) return []
  const inside = round.insideMm / (2 * Math.PI)
  const size = ringSize(round.insideMm)
  const middle = inside + 6
  return [
    {
      title: 'Inside of the ring',
      // Its figures stand beside it.
      ...{ widthMm: 2 * middle + 40, lengthMm: 2 * middle },
      lines: [{ kind: 'tool', thickMm: 0.3, points: ringPoints(middle, middle, inside, 72) }],
      labels: [
        { x: middle + inside + 3, y: middle, says: `${tenths(2 * inside)} mm` },
        { x: middle + inside + 3, y: middle + 5, says: `ISO ${tenths(round.insideMm)}, US ${size.us}` },
      ],
      says: [`Lay a ring that fits upon the circle, or close the ring on a mandrel of ${tenths(2 * inside)} mm.`],
    },
    markedWire('Wire of the ring', wires[0]!.lengthMm, wireDiameterMm(own.gauge), [
      { at: wires[0]!.lengthMm / 2, says: `fold; ${rows.length} tiles on both legs` },
    ]),
  ]
}

/** Lines with as many seeds on each leg as the settings say. */
function full(lines: readonly (readonly number[])[], work: Work, from?: Settings): number[][] {
  // A seed more in one gap tunes the size: it stays until the seeds are changed.
  if (!differs(from, work.settings, ['seeds'])) return lines.map((line) => [...line])
  const { seeds } = read(work.settings)
  const seed = lines.flatMap((line) => line.slice(1))[0]
  return lines.map((line) => {
    const [tile, ...rest] = line
    if (tile === undefined) return []
    const half = Math.ceil(rest.length / 2)
    const legs = [rest.slice(0, half), rest.slice(half)]
    return [tile, ...legs.flatMap((leg) => resized(leg, seeds, leg.at(-1) ?? seed ?? tile))]
  })
}

const basis = (work: Omit<Work, 'rows'>) => {
  const own = read(work.settings)
  const tile = work.usual?.[0] ?? work.bead
  const seed = work.usual?.[1] ?? requireSpec(USUAL_SEED)
  const seeds = work.usual ? (work.usual.length - 1) / 2 : own.seeds
  return { own, tile, seed, seeds, thick: thickOf(tile, seed, seeds) }
}
const lengthFor = (rows: number, work: Omit<Work, 'rows'>): number => {
  const { own, tile, seed, seeds, thick } = basis(work)
  return lengthOf(roundFor(own, rows, tile, seed, Math.max(0, seeds)), thick)
}

export const tileRing = wireWork({
  id: 'tile-ring',
  name: 'Ring of tiles',
  summary: 'Beads with two holes on a wire folded in two, seeds between them: a band for a finger.',
  settings,
  fields: [
    { key: 'seeds', label: 'Seeds between', help: 'On each wire, between two tiles.', kind: 'number' },
    { key: 'joint', label: 'Left open', help: 'Where the ring is closed.', kind: 'length' },
    gaugeField('gauge', 'Wire, gauge', '24 is 0.51 mm; 20 (0.81 mm) is tight in a hole of 0.8 mm.', [18, 30]),
    hardnessField,
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: USUAL_TILE, takes: (spec) => requireSpec(spec).spacing !== undefined },
  kinds: ['ring'],
  closure: 'none',
  tunes: [{ key: 'seeds', counts: 'seeds between' }],
  words: {
    line: 'tile',
    place: 'bead',
    across: 'to a tile',
    acrossTitle: 'Beads to a tile',
    thing: 'Ring',
    sample: {
      name: 'sample',
      how: 'String some tiles, bend them round, and lay a rule along their middle.',
      counted: 'Tiles counted',
      where: 'From tile to tile.',
      wide: false,
    },
  },
  first: {
    sizes: [USUAL_SEED],
    edge: 0,
    parts: (_r, _count, work) => [0, ...Array<number>(2 * read(work.settings).seeds).fill(1)],
  },
  shape(work, rows) {
    const all = measure(work, rows)
    const { round, tile, thickMm } = all
    return {
      layout: layoutOf(work, all),
      lengthMm: rows.length === 0 ? 0 : lengthOf(round, thickMm),
      widthMm: rows.length === 0 ? 0 : tile.d,
      thicknessMm: thickMm,
      lengthFormula:
        `${rows.length} tiles and their seeds lie as chords of a circle of ${inMm(round.radiusMm)} radius: inside ` +
        `${inMm(round.insideMm)} + π × ${inMm(thickMm)}`,
      widthFormula: `a tile, ${inMm(tile.d)}`,
      wires: wiresOf(all),
      guides: guidesOf(all),
      findings: findings(all),
    }
  },
  program(work, rows) {
    const { own } = measure(work, rows)
    const carrier = (id: string, name: string) => ({ id, name, kind: 'wire' as const, mm: wireDiameterMm(own.gauge) })
    return laced(
      rows,
      rows.map((row, r): Lacing[] => {
        const { tile, first, second } = rolesOf(row)
        if (tile < 0) return []
        const two = row[0]!.spacing !== undefined
        return [
          { do: 'pick', by: 'one', at: [0] },
          two
            ? { do: 'pass', by: 'other', at: [0], way: 'on', hole: 'b' }
            : { do: 'pass', by: 'other', at: [0], way: 'on', note: 'it has one hole only' },
          { do: 'pick', by: 'one', at: first },
          { do: 'pick', by: 'other', at: second },
          ...(r === rows.length - 1
            ? [
                {
                  do: 'say',
                  text: CLOSING,
                } as const,
              ]
            : []),
        ]
      }),
      {
        unit: 'tile',
        carriers: [carrier('one', 'first leg'), carrier('other', 'second leg')],
        fixtures: {},
        cut: { folded: true, each: 'piece' },
      },
    )
  },
  side: { full, tables },
  lengthOf(work) {
    if (work.rows === 0) return 0
    if (!work.lineLength) return lengthFor(work.rows, work)
    const { round, thickMm } = measure(work)
    return lengthOf(round, thickMm)
  },
  rowsFor(lengthMm, work) {
    if (lengthMm <= 0) return 0
    let [low, high] = [0, 2]
    while (lengthFor(high, work) < lengthMm && high < 1e5) high *= 2
    for (let turn = 0; turn < 50; turn++) {
      const middle = (low + high) / 2
      if (middle > 0 && lengthFor(middle, work) < lengthMm) low = middle
      else high = middle
    }
    return (low + high) / 2
  },
  firstLines: (count, work) => Array<number>(count).fill(1 + 2 * read(work.settings).seeds),
  join: () => meeting('Both legs go on through the first tile; their ends are wrapped between two seeds.'),
  workplace: (work) => ({
    tools: ['Ring mandrel', 'Chain-nose pliers', 'Nylon-jaw pliers', 'Flush cutter', 'File', 'Eye protection'],
    needs: [],
    ready: [
      { id: 'holes', text: 'Look through both holes of every tile: one that is closed is laid aside', minutes: 4 },
      {
        id: 'fold',
        text: `Fold the wire in its middle over something ${tenths(work.bead.spacing ?? 3)} mm thick`,
        minutes: 1,
      },
    ],
    cautions: [
      ...WIRE_CAUTIONS,
      'A ring that sits tight can cut off the blood of a finger that swells: try it over the knuckle, warm and cold.',
    ],
    fasten: {
      title: 'Close the ring',
      says: [
        'Bring both legs through the first tile, one from each side, and draw the ring close on the mandrel.',
        'Wrap each end twice between a tile and a seed, cut it on the outside and press it in.',
      ],
      minutes: 6,
      cautions: [TUCKED],
    },
    glued: false,
  }),
})
