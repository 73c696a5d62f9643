import { requireSpec } from '../core/bead/spec'
import type { Piece } from '../core/piece/piece'
import { requireTechnique } from '../core/technique/registry'
import { usualClosure } from '../core/wear/closure'
import { strung } from './carriers'
import { trayOf } from './plan'

/** Chains of stitched motifs, one by each design that ships. */

interface Chained {
  readonly name: string
  readonly notes: string
  readonly part: string
  readonly technique: string
  readonly settings?: Readonly<Record<string, string | number>>
  readonly tray: Piece['tray']
  readonly fit: Partial<Piece['fit']>
  readonly supply?: Partial<Piece['supply']>
  /** Lines in all, and after how many colours begin again. */
  readonly lines: number
  readonly cycle: number
  /** Tray number of the k-th bead of a part in line r, by the order of the design’s parts. */
  readonly colours: readonly ((r: number, k: number) => number)[]
}

/** A chain whose lines hold what its design picks up, coloured part by part. */
function chained({ lines, cycle, colours, part, technique: id, settings = {}, tray, ...head }: Chained): Piece {
  const technique = requireTechnique(id)
  const own = technique.settings.parse(settings)
  const work = { columns: 1, bead: requireSpec(tray[0]!.spec), settings: own }
  const line = (r: number): number[] => {
    const seen = new Map<number, number>()
    return technique.first!.parts(r, lines, work).map((slot) => {
      const k = seen.get(slot) ?? 0
      seen.set(slot, k + 1)
      return colours[slot]!(r, k)
    })
  }
  const times = Math.floor((lines - 2) / cycle)
  const rest = lines - 1 - times * cycle
  return strung({
    ...{ ...head, tray },
    part: {
      ...{ name: part, technique: id, settings: own, times },
      start: [line(0)],
      repeat: Array.from({ length: cycle }, (_, k) => line(1 + k)),
      end: Array.from({ length: rest }, (_, k) => line(lines - rest + k)),
    },
  })
}

/** A part that nothing plays as the design is set. */
const none = (): number => 0
const one = (number: number) => (): number => number
const inTurn =
  (...numbers: readonly number[]) =>
  (r: number): number =>
    numbers[(r + numbers.length - 1) % numbers.length]!

export const CHAIN_PIECES: readonly Piece[] = [
  chained({
    name: 'Quay daisies',
    notes: 'The thread through the petal beside the heart goes away from the stem.',
    part: 'Daisies',
    technique: 'stemmed-flowers',
    settings: { stems: 3, petals: 7, mix: 'two', finish: 'loop', loop: 7, again: 2 },
    tray: trayOf('round-8', [
      ['Stem', '#5d7f4f', 'opaque'],
      ['Lilac', '#cbb8e0', 'lustre'],
      ['Chalk', '#ece6da', 'opaque'],
      ['Yolk', '#e0a52b', 'opaque'],
      ['Bluebell', '#6f7fc0', 'transparent', 'round-11'],
      ['Crumb', '#d9b36b', 'matte', 'round-15'],
      ['Sea wall', '#6c7b74', 'matte', 'round-11'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 165, easeMm: 13, closure: usualClosure('toggle') },
    // The hearts of the small flowers have the narrowest holes.
    supply: { needle: '13' },
    lines: 16,
    cycle: 4,
    colours: [one(1), (r) => (r % 4 < 2 ? 2 : 3), one(4), one(5), one(6), one(7)],
  }),
  chained({
    name: 'Thrift ring',
    notes: 'Twelve flowers for a finger: the last is worked on to the first, and two pinks in turn close whole.',
    part: 'Thrift',
    technique: 'stemmed-flowers',
    settings: { stems: 1, petals: 5, mix: 'one', finish: 'meet' },
    tray: trayOf('round-11', [
      ['Cliff', '#7d8a5c', 'matte'],
      ['Thrift', '#c76f95', 'lustre'],
      ['Pale thrift', '#e8bccd', 'opaque'],
      ['Pollen', '#d7a43c', 'matte'],
    ]),
    fit: { kind: 'ring', wearer: 'Tilda', bodyMm: 52, easeMm: 0, closure: usualClosure('none') },
    supply: { needle: '13', thread: 'gel-4' },
    lines: 12,
    cycle: 2,
    colours: [one(1), inTurn(2, 3), one(4), none, none, none],
  }),
  chained({
    name: 'Willow lozenges',
    notes: 'Two colours of leaf in turn: an even count of lozenges ends as it begins.',
    part: 'Lozenges',
    technique: 'lozenges',
    settings: { side: 3 },
    tray: trayOf('almond-duo-5-x-2-5-mm', [
      ['Willow', '#6d8f5a', 'lustre'],
      ['Silver leaf', '#b9c3a6', 'matte'],
      ['Amber', '#c2873a', 'transparent', 'faceted-4-mm'],
      ['Reed', '#d9d4c7', 'opaque', 'round-8'],
      ['Bark', '#6a5140', 'matte', 'round-11'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 165, easeMm: 13, closure: usualClosure('toggle') },
    lines: 24,
    cycle: 2,
    colours: [inTurn(1, 2), one(3), one(4), one(5)],
  }),
  chained({
    name: 'Tiled court',
    notes: 'Every medallion has a thread of its own: leave its tails until the next one is joined.',
    part: 'Medallions',
    technique: 'medallions',
    settings: { edge: 3, join: 'bugles' },
    tray: trayOf('ball-4-mm', [
      ['Glazed blue', '#2e5f8f', 'transparent'],
      ['Terracotta', '#b5633e', 'matte', 'round-8'],
      ['Plaster', '#eadfca', 'opaque', 'round-11'],
      ['Gilt', '#c79a3a', 'metallic', 'round-11'],
      ['Rain pipe', '#3f5058', 'metallic', 'bugle-6-mm'],
      ['Doorway', '#7a4c3a', 'matte', 'round-11'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 165, easeMm: 16, closure: usualClosure('toggle') },
    supply: { needle: '13' },
    lines: 14,
    cycle: 1,
    colours: [one(1), one(2), one(3), one(4), one(5), none, one(6)],
  }),
  chained({
    name: 'Peaked harbour',
    notes: 'Check both holes of every dome before it is threaded.',
    part: 'Rings',
    technique: 'peaked-rings',
    tray: trayOf('bicone-4-mm', [
      ['Mast light', '#d8a24a', 'transparent'],
      ['Hull', '#2f4f63', 'metallic', 'domed-duo-5-x-2-5-mm'],
      ['Buoy line', '#c4542b', 'matte', 'round-11'],
      ['Spray', '#dfe3dc', 'lustre', 'round-11'],
      ['Lamp', '#f0dfae', 'transparent', 'bicone-3-mm'],
      ['Chain locker', '#5a5148', 'matte', 'round-11'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 165, easeMm: 16, closure: usualClosure('toggle') },
    lines: 16,
    cycle: 1,
    colours: [one(1), one(2), one(3), one(4), one(5), one(6)],
  }),
  chained({
    name: 'Rain lattice',
    notes: 'Draw every unit tight before the next: the band stays flat.',
    part: 'Band',
    technique: 'angle-band',
    settings: { across: '3', side: 1 },
    tray: trayOf('ball-3-mm', [
      ['Rain', '#8fa7b5', 'transparent'],
      ['Gutter', '#4b5a63', 'matte'],
      ['Sun through', '#e2c06a', 'lustre'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 165, easeMm: 13, closure: usualClosure('toggle') },
    supply: { needle: '13', thread: 'gel-4' },
    lines: 40,
    cycle: 4,
    colours: [(r, k) => (k === 1 || k === 4 ? 2 : (r + k) % 4 === 0 ? 3 : 1)],
  }),
  chained({
    name: 'Dew collar',
    notes: 'Lay it round the neck before the last third: the base string gives the fit.',
    part: 'Net',
    technique: 'netted-collar',
    settings: { deep: 2, arc: 3, base: 4 },
    tray: trayOf('round-8', [
      ['Dusk', '#36557a', 'opaque'],
      ['Mist', '#d9dee0', 'lustre', 'round-11'],
      ['Dew', '#9cc4c9', 'transparent', 'ball-3-mm'],
      ['Gilt edge', '#b98a2e', 'metallic', 'round-11'],
    ]),
    fit: { kind: 'choker', wearer: 'the fair', bodyMm: 340, easeMm: 20, closure: usualClosure('hook') },
    supply: { needle: '13', thread: 'gel-4' },
    lines: 43,
    cycle: 1,
    colours: [one(1), one(2), one(3), one(4)],
  }),
  chained({
    name: 'Bramble rope',
    notes: 'Push each loop to the same side as the one before.',
    part: 'Rope',
    technique: 'spiral-rope',
    settings: { span: 4, seeds: 1 },
    tray: trayOf('round-11', [
      ['Bramble', '#4a3346', 'matte'],
      ['Thorn', '#6f8f5a', 'lustre'],
      ['Berry', '#7b2f4a', 'transparent', 'ball-3-mm'],
      ['Root', '#5c4a3c', 'matte', 'round-11'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 165, easeMm: 20, closure: usualClosure('toggle') },
    supply: { needle: '13', thread: 'gel-4' },
    lines: 30,
    cycle: 1,
    colours: [one(1), one(2), one(3), one(4)],
  }),
  chained({
    name: 'Tide edge',
    notes: 'Sew its base row to the edge of a band, bead by bead.',
    part: 'Edging',
    technique: 'edge-loops',
    settings: { under: 3, between: 1, arc: 3 },
    tray: trayOf('round-11', [
      ['Wet sand', '#b9a98b', 'matte'],
      ['Foam line', '#e4e6df', 'lustre'],
      ['Sea glass', '#7fb0a6', 'transparent', 'round-8'],
    ]),
    fit: { wearer: 'the fair', bodyMm: 165, easeMm: 13, closure: usualClosure('toggle') },
    lines: 30,
    cycle: 1,
    colours: [one(1), one(2), one(3)],
  }),
]
