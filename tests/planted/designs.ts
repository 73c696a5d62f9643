import { cellsFrom, flatten, type Cells } from '#core/grid/cells'
import type { Part } from '#core/piece/piece'
import { requireTechnique } from '#core/technique/registry'
import type { Settings } from '#core/technique/technique'
import { Chance } from './random'

/**
 * Designs as weavers draw them, written out over at least four periods, to plant mistakes in. Made apart from the
 * proofreader: patterns are functions of the place of a bead on its stitch, as a weaver counts it.
 */
export interface Design {
  readonly family: string
  readonly seed: number
  readonly part: Part
}

/** A colour, from 1, for a place: steps across and along. */
type Pattern = (x: number, y: number) => number

interface Stitch {
  readonly technique: string
  readonly settings?: Settings
  readonly spec: string
  /** Where a bead lies, in steps: half rows of what is staggered. */
  at(c: number, r: number): readonly [x: number, y: number]
  /** Steps along of a row; columns that it can have. */
  readonly step: number
  columns(wanted: number): number
  readonly round?: boolean
}

const any = (n: number): number => Math.max(3, n)
const even = (n: number): number => Math.max(4, 2 * Math.round(n / 2))

export const STITCHES: readonly Stitch[] = [
  { technique: 'loom', spec: 'cylinder-11', at: (c, r) => [c, r], step: 1, columns: any },
  { technique: 'square', spec: 'cylinder-11', at: (c, r) => [c, r], step: 1, columns: any },
  { technique: 'peyote', spec: 'cylinder-11', at: (c, r) => [c, 2 * r + (c % 2)], step: 2, columns: even },
  { technique: 'brick', spec: 'cylinder-11', at: (c, r) => [2 * c + (r % 2), r], step: 1, columns: any },
  { technique: 'herringbone', spec: 'cylinder-11', at: (c, r) => [c, r], step: 1, columns: even },
  {
    ...{ technique: 'peyote-tube', spec: 'cylinder-11', step: 2, columns: even, round: true },
    at: (c, r) => [c, 2 * r + (c % 2)],
  },
]

const mod = (a: number, n: number): number => ((a % n) + n) % n

/** A sequence of colours in which neighbours differ here and there, none of one colour only. */
function sequence(chance: Chance, length: number, colours: number): number[] {
  const out: number[] = []
  while (out.length < length) {
    const colour = chance.whole(1, colours)
    const run = chance.whole(1, Math.max(1, Math.min(3, length - out.length)))
    for (let k = 0; k < run && out.length < length; k++) out.push(colour)
  }
  if (new Set(out).size < 2) out[0] = (out[0]! % colours) + 1
  return out
}

/** A small figure: a blob of one or two colours on nothing (0), as wide and high as is said. */
function figure(chance: Chance, wide: number, high: number, colours: number): number[][] {
  const rows = Array.from({ length: high }, () => Array<number>(wide).fill(0))
  let [x, y] = [wide >> 1, high >> 1]
  const beads = chance.whole(Math.ceil(0.35 * wide * high), Math.ceil(0.65 * wide * high))
  const main = chance.whole(2, colours)
  const second = chance.whole(2, colours)
  for (let laid = 0, tries = 0; laid < beads && tries < 400; tries++) {
    if (rows[y]![x] === 0) {
      rows[y]![x] = chance.is(0.75) ? main : second
      laid++
    }
    if (chance.is(0.5)) x = Math.max(0, Math.min(wide - 1, x + (chance.is(0.5) ? 1 : -1)))
    else y = Math.max(0, Math.min(high - 1, y + (chance.is(0.5) ? 1 : -1)))
  }
  if (chance.is(0.5)) for (const row of rows) for (let c = 0; c < wide >> 1; c++) row[wide - 1 - c] = row[c]!
  return rows
}

interface Drawn {
  readonly pattern: Pattern
  /** Steps after which it comes again along, and across where it must divide a tube. */
  readonly period: number
  readonly across?: number
}

type Draw = (chance: Chance, colours: number, wide: number) => Drawn

/** Figures set on a ground, every one alike, or in turns mirrored or turned. */
const figures =
  (turned: (row: number, column: number) => 'plain' | 'mirror' | 'turn'): Draw =>
  (chance, colours) => {
    const [wide, high] = [chance.whole(5, 8), chance.whole(5, 9)]
    const shape = figure(chance, wide, high, Math.max(2, colours))
    const [px, py] = [wide + chance.whole(1, 3), high + chance.whole(1, 4)]
    const drop = chance.is(0.35) ? px >> 1 : 0
    const two = 2 * py
    return {
      period: two,
      across: px,
      pattern(x, y) {
        const row = Math.floor(mod(y, two) / py)
        const xs = x + (row % 2) * drop
        const column = Math.floor(xs / px)
        let [fx, fy] = [mod(xs, px), mod(y, py)]
        if (fx >= wide || fy >= high) return 1
        const way = turned(row, mod(column, 2))
        if (way !== 'plain') fx = wide - 1 - fx
        if (way === 'turn') fy = high - 1 - fy
        return shape[fy]![fx]! || 1
      },
    }
  }

const diamonds: Draw = (chance, colours) => {
  const [w, h] = [chance.whole(3, 6), chance.whole(3, 7)]
  const list = sequence(chance, w + h + 2, colours)
  return {
    ...{ period: 2 * h, across: 2 * w },
    pattern: (x, y) => list[Math.abs(mod(x, 2 * w) - w) + Math.abs(mod(y, 2 * h) - h)]!,
  }
}

const FAMILIES: Readonly<Record<string, Draw>> = {
  'stripes'(chance, colours) {
    const list = sequence(chance, chance.whole(5, 14), colours)
    return { period: list.length, across: 1, pattern: (_x, y) => list[mod(y, list.length)]! }
  },
  'slants'(chance, colours) {
    const list = sequence(chance, chance.whole(4, 10), colours)
    const lean = chance.of([1, -1, 2, -2])
    return { period: list.length, across: list.length, pattern: (x, y) => list[mod(lean * x + y, list.length)]! }
  },
  'chevrons'(chance, colours) {
    const w = chance.whole(2, 6)
    const list = sequence(chance, chance.whole(4, 12), colours)
    return {
      ...{ period: list.length, across: 2 * w },
      pattern: (x, y) => list[mod(Math.abs(mod(x, 2 * w) - w) + y, list.length)]!,
    }
  },
  diamonds,
  'checks'(chance, colours) {
    const [w, h] = [chance.whole(2, 4), chance.whole(2, 5)]
    const fill = [figure(chance, w, h, colours), figure(chance, w, h, colours)]
    const ground = [1, 2]
    return {
      ...{ period: 2 * h, across: 2 * w },
      pattern(x, y) {
        const which = mod(Math.floor(x / w) + Math.floor(y / h), 2)
        return fill[which]![mod(y, h)]![mod(x, w)]! || ground[which]!
      },
    }
  },
  'tiles'(chance, colours) {
    const [w, h] = [chance.whole(3, 8), chance.whole(4, 10)]
    const tile = Array.from({ length: h }, () => sequence(chance, w, colours))
    const off = chance.is(0.4) ? chance.whole(1, w - 1) : 0
    const rows = off === 0 ? 1 : w
    return {
      ...{ period: h * rows, across: w },
      pattern: (x, y) => tile[mod(y, h)]![mod(x + off * Math.floor(y / h), w)]!,
    }
  },
  'repeat in repeat'(chance, colours) {
    const [w, h] = [chance.whole(3, 6), chance.whole(3, 6)]
    const shape = figure(chance, w, h, colours)
    const bars = sequence(chance, chance.whole(2, 4), colours)
    const py = h + 1 + bars.length
    return {
      ...{ period: py, across: w + 1 },
      pattern(x, y) {
        const fy = mod(y, py)
        if (fy > h) return bars[fy - h - 1]!
        const fx = mod(x, w + 1)
        return fy < h && fx < w ? shape[fy]![fx]! || 1 : 1
      },
    }
  },
  'figures': figures(() => 'plain'),
  'mirrored figures': figures((row, column) => ((row + column) % 2 === 0 ? 'plain' : 'mirror')),
  'turned figures': figures((row, column) => ((row + column) % 2 === 0 ? 'plain' : 'turn')),
  'borders'(chance, colours, wide) {
    const inner = FAMILIES[chance.of(['diamonds', 'figures', 'chevrons', 'tiles'])]!(chance, colours, wide)
    const edge = chance.whole(1, 3)
    const lists = Array.from({ length: edge }, () => sequence(chance, chance.of([2, 3, 4]), colours))
    const period = inner.period * 12
    return {
      period: inner.period,
      pattern(x, y) {
        const from = Math.min(x, wide - 1 - x)
        return from < edge ? lists[from]![mod(y, lists[from]!.length)]! : inner.pattern(x, mod(y, period))
      },
    }
  },
  'waves'(chance, colours) {
    const length = chance.whole(6, 12)
    const rise = chance.whole(1, 3)
    const list = sequence(chance, chance.whole(5, 12), colours)
    return {
      ...{ period: list.length, across: length },
      pattern: (x, y) =>
        list[mod(y + Math.round(rise * Math.sin((2 * Math.PI * mod(x, length)) / length)), list.length)]!,
    }
  },
  'scales'(chance, colours) {
    const w = 2 * chance.whole(2, 4)
    const h = chance.whole(3, 5)
    const list = sequence(chance, h + w, colours)
    return {
      ...{ period: 2 * h, across: w },
      pattern(x, y) {
        const row = Math.floor(y / h)
        const fx = mod(x + (row % 2 === 0 ? 0 : w / 2), w) - w / 2
        return list[Math.min(list.length - 1, mod(y, h) + Math.round((fx * fx) / w))]!
      },
    }
  },
}

/** Kinds of designs, and those on which nothing was ever tuned. */
export const FAMILY_NAMES: readonly string[] = [...Object.keys(FAMILIES), 'ends', 'braids']
export const HELD_OUT: readonly string[] = ['waves', 'scales']

/** Designs that are filled by a figure or a tile. */
export const FILLED: readonly string[] = [
  ...['stripes', 'slants', 'chevrons', 'diamonds', 'checks', 'tiles', 'repeat in repeat', 'waves', 'scales'],
]

const settingsOf = (technique: string): Settings => requireTechnique(technique).settings.parse({}) as Settings

const partOf = (technique: string, spec: string, columns: number, sections: readonly (readonly number[])[]): Part => ({
  ...{ id: 'band', name: 'Band', technique, spec, times: 1, on: null },
  settings: settingsOf(technique),
  start: cellsFrom(columns, sections[0]!.length / columns, [...sections[0]!]),
  repeat: cellsFrom(columns, sections[1]!.length / columns, [...sections[1]!]),
  end: cellsFrom(columns, sections[2]!.length / columns, [...sections[2]!]),
})

/** Periods that are written out. */
const PERIODS = [4, 7] as const
const MOST_ROWS = 220

function braid(seed: number): Design {
  const chance = new Chance(seed)
  const technique = chance.of(['braid-8', 'braid-12', 'braid-16'])
  const columns = Number(technique.slice(6))
  const colours = chance.whole(2, 4)
  const period = chance.whole(4, 9)
  const lists = Array.from({ length: columns }, () => sequence(chance, period, colours))
  // Strands follow each other round the rope, in two or four kinds.
  const kinds = chance.of([1, 2, 4])
  const rows = period * chance.whole(5, 8)
  const cells = Array.from({ length: rows * columns }, (_, k) => {
    const [s, r] = [k % columns, Math.floor(k / columns)]
    return lists[s % kinds]![(r + Math.floor(s / kinds)) % period]!
  })
  return { family: 'braids', seed, part: partOf(technique, 'cylinder-11', columns, [[], cells, []]) }
}

/** Whether a pattern is one: no colour has nearly all of it. */
function isDrawn(cells: readonly number[]): boolean {
  const counts = new Map<number, number>()
  for (const v of cells) counts.set(v, (counts.get(v) ?? 0) + 1)
  return Math.max(...counts.values()) <= 0.96 * cells.length
}

/** A design of a family; the same for the same seed. */
export function designOf(family: string, seed: number): Design {
  for (let k = 0; ; k++) {
    const design = family === 'braids' ? braid(seed + 1000 * k) : drawn(family, seed + 100_000 * k)
    if (isDrawn([...flatten(design.part.repeat as Cells)])) return { ...design, seed }
  }
}

function drawn(family: string, seed: number): Design {
  const chance = new Chance(seed * 31 + FAMILY_NAMES.indexOf(family) * 7919)
  const stitch = chance.of(STITCHES.filter((s) => family !== 'borders' || !s.round))
  const colours = chance.whole(2, 5)
  const within = family === 'ends' ? chance.of(['diamonds', 'chevrons', 'figures', 'tiles', 'slants']) : family
  const wanted = chance.whole(10, 30)
  // What is aside by half a bead has two steps to a bead.
  const perColumn = stitch.technique === 'brick' ? 2 : 1
  const { pattern, period, across } = FAMILIES[within]!(chance, colours, stitch.columns(wanted) * perColumn)
  // Round a tube the pattern closes.
  const least = across ? (stitch.technique === 'peyote-tube' && across % 2 === 1 ? 2 * across : across) : 1
  const columns = stitch.round && across ? Math.max(least, Math.round(wanted / least) * least) : stitch.columns(wanted)
  const periods = chance.whole(...PERIODS)
  const fitting = stitch.step === 2 && period % 2 === 1 ? 2 * period : period
  const rows = Math.min(MOST_ROWS, Math.max(12, Math.ceil((fitting * periods) / stitch.step)))
  const cells = Array.from({ length: rows * columns }, (_, k) => {
    const [x, y] = stitch.at(k % columns, Math.floor(k / columns))
    return pattern(x, y)
  })
  const plain = (count: number, colour: number) => Array<number>(count * columns).fill(colour)
  const ends = family === 'ends' ? [plain(2 * chance.whole(1, 3), 1), plain(2 * chance.whole(1, 3), 2)] : [[], []]
  return { family, seed, part: partOf(stitch.technique, stitch.spec, columns, [ends[0]!, cells, ends[1]!]) }
}

/** Beads laid by chance: a blend from one colour to another, or to a third. */
export function chanceBlend(seed: number): Part {
  const chance = new Chance(seed + 70_001)
  const [columns, rows] = [2 * chance.whole(5, 12), chance.whole(40, 110)]
  const colours = chance.whole(2, 4)
  const cells = Array.from({ length: rows * columns }, (_, k) => {
    const along = (Math.floor(k / columns) / rows) * (colours - 1)
    return 1 + Math.floor(along) + (chance.next() < along % 1 ? 1 : 0)
  })
  return partOf(chance.of(['peyote', 'loom', 'brick']), 'cylinder-11', columns, [[], cells, []])
}

/** A picture: smooth hills in a few tones. */
export function picture(seed: number): Part {
  const chance = new Chance(seed + 90_001)
  const [columns, rows] = [2 * chance.whole(12, 30), chance.whole(40, 100)]
  const tones = chance.whole(3, 8)
  const hills = Array.from({ length: chance.whole(4, 9) }, () => ({
    ...{ x: chance.next() * columns, y: chance.next() * rows },
    ...{ wide: 4 + chance.next() * 18, high: chance.next() * 2 - 1 },
  }))
  const cells = Array.from({ length: rows * columns }, (_, k) => {
    const [c, r] = [k % columns, Math.floor(k / columns)]
    const tone = hills.reduce((sum, h) => sum + h.high * Math.exp(-((c - h.x) ** 2 + (r - h.y) ** 2) / h.wide ** 2), 0)
    return Math.max(1, Math.min(tones, 1 + Math.floor((0.5 + tone / 2) * tones + (chance.next() - 0.5) * 0.3)))
  })
  return partOf(chance.of(['peyote', 'loom', 'brick']), 'cylinder-11', columns, [[], cells, []])
}
