import { valueOf } from '../core/problem'
import { readRecipeText } from '../core/recipe/shorthand'
import { ownSpecId } from '../core/bead/spec'
import type { ClosureKind } from '../core/wear/closure'
import type { Gauge } from '../core/piece/schema'
import {
  measuresSchema,
  type Measures,
  type Person,
  type ShelfBead,
  type ShelfInput,
  type ShelfThread,
} from '../core/shelf/shelf'

/**
 * The box of the demo workshop: what lies in its drawers, a size measured with a caliper, and two stamps. All made up.
 */
const bead = (
  name: string,
  spec: string,
  colour: string,
  finish: ShelfBead['finish'],
  grams: number,
  price = 0,
): ShelfInput => ({ kind: 'bead', name, spec, colour, finish, grams, tubeGrams: 2.3, packGrams: 10, price })

const thread = (name: string, id: ShelfThread['thread'], metres: number, price: number): ShelfInput => ({
  kind: 'thread',
  name,
  thread: id,
  lengthMm: metres * 1000,
  spoolMm: 50_000,
  price,
})

const closure = (name: string, kind: ClosureKind, lengthMm: number, count: number, price: number): ShelfInput => ({
  kind: 'finding',
  name,
  count,
  price,
  closure: { kind, lengthMm },
})

const person = (
  name: string,
  measures: Partial<Measures>,
  more: { ear?: Person['ear']; easeMm?: number; notes?: string } = {},
): ShelfInput => ({ kind: 'person', name, measures: measuresSchema.parse(measures), ...more })

const MEASURED = ownSpecId({ shape: 'round', name: 'market rounds', d: 2.05, l: 1.5, h: 0.75, perGram: 112 })

/** Three swatches of one hand: a little looser than nominal beads. */
export const FLAT_PEYOTE: Gauge = {
  technique: 'peyote',
  spec: 'cylinder-11',
  thread: 'gel-6',
  swatches: [
    { rows: 20, lengthMm: 32.5, columns: 12, widthMm: 15.8, from: 'swatch' },
    { rows: 30, lengthMm: 49, columns: 0, widthMm: 0, from: 'swatch' },
    { rows: 104, lengthMm: 169, columns: 0, widthMm: 0, from: 'Summer sample' },
  ],
}

/** A motif from rows of letters: a for the first bead, b for the second; a dot leaves what lies there. */
function stamp(
  name: string,
  technique: string,
  rows: readonly string[],
  beads: readonly (readonly [string, string, ShelfBead['finish']])[],
): ShelfInput {
  return {
    kind: 'stamp',
    name,
    technique,
    columns: rows[0]!.length,
    rows: rows.length,
    cells: rows.flatMap((row) => [...row].map((sign) => (sign === '.' ? 0 : sign.charCodeAt(0) - 96))),
    beads: beads.map(([own, colour, finish]) => ({ name: own, spec: 'cylinder-11', colour, finish })),
  }
}

export const DEMO_SHELF: readonly ShelfInput[] = [
  bead('Fog', 'cylinder-11', '#d9d4c7', 'lustre', 21.4, 360),
  bead('Kingfisher', 'cylinder-11', '#1b7fa3', 'lustre', 6.2, 410),
  bead('Rust', 'cylinder-11', '#b5512b', 'matte', 3.8, 340),
  bead('Old gold', 'cylinder-11', '#b98a2e', 'metallic', 3.6, 620),
  bead('Night water', 'cylinder-11', '#252d52', 'metallic', 9.7, 580),
  bead('Sedge', 'cylinder-11', '#6d8436', 'opaque', 0.6, 300),
  bead('Pomegranate', 'cylinder-11', '#8f1f33', 'lustre', 14.9, 380),
  bead('Chalk', 'cylinder-11', '#e9e3d4', 'matte', 31.2, 310),
  bead('Cornflower', 'round-11', '#3f5fa8', 'transparent', 18.3, 190),
  bead('Wheat', 'round-11', '#d6a545', 'lustre', 7.4, 210),
  bead('Oil on water', 'round-8', '#5c6f7c', 'rainbow', 42.0, 240),
  bead('Amber', 'drop-3-4-mm', '#c9822b', 'transparent', 12.5, 390),
  bead('Slate', 'half-tile-5-x-2-3-mm', '#5d6670', 'matte', 8.8),
  bead('Moonstone', 'ball-4-mm', '#cfd6dc', 'lined', 5.5),
  bead('Heather', MEASURED, '#8a6a9c', 'lined', 16.0),
  bead('Plum skin', 'round-11', '#5a2d4a', 'lustre', 11.2, 200),
  thread('Grey spool', 'gel-6', 38, 1290),
  thread('Sand nylon', 'nylon-d', 64, 380),
  closure('Copper toggle', 'toggle', 15.5, 4, 145),
  closure('Tiny hook', 'hook', 10, 7, 60),
  closure('Acorn button', 'button', 13, 3, 90),
  closure('Dew ear wires', 'ear-wire', 3, 12, 35),
  { kind: 'finding', name: 'Jump ring 4 mm', count: 120, price: 2 },
  { kind: 'spec', name: 'market rounds', spec: MEASURED },
  stamp(
    'Little heart',
    'loom',
    ['.aa.aa.', 'abbabba', 'abbbbba', '.abbba.', '..aba..', '...a...'],
    [
      ['Night water', '#252d52', 'metallic'],
      ['Pomegranate', '#8f1f33', 'lustre'],
    ],
  ),
  stamp(
    'Leaf',
    'peyote',
    ['..a..', '.aba.', 'aabaa', 'aabaa', '.aba.', '..b..'],
    [
      ['Sedge', '#6d8436', 'opaque'],
      ['Old gold', '#b98a2e', 'metallic'],
    ],
  ),
  {
    kind: 'recipe',
    name: 'Seed heads',
    recipe: valueOf(
      readRecipeText(`
recipe seed-heads "Seed heads"
field stem 1..9=4 "Stem beads"
field head 4..9=6 "Beads round a head"
bead stem round-11 "stem bead" "stem beads"
bead head round-8 "head bead" "head beads"
bead tip round-11 "tip" "tips"
carrier thread thread 0.15 "thread"
motif
  pick stem*stem head*head
  pass head -- "the ring closes; draw it tight"
  pick tip
  pass head[1] -- "the tip lies in the middle"
end
  pick stem*stem
`),
    ),
    params: {},
  },
  person(
    'Tilda',
    { wrist: 158, hand: 196, neck: 338, finger: 52, drop: 45 },
    { ear: 'ear-wire', easeMm: 6, notes: 'Likes it close. No nickel.' },
  ),
  person('Uncle Bo', { wrist: 192, hand: 231, finger: 65 }, { easeMm: 19 }),
  person('The stall, medium', { wrist: 170, neck: 356, ankle: 228, necklace: 457.2 }),
  { kind: 'gauge', gauge: FLAT_PEYOTE },
]

/** What is set aside for pieces of the demo: two of them want the same tube of green. */
export const DEMO_HOLDINGS: readonly { readonly piece: string; readonly bead: string; readonly grams: number }[] = [
  { piece: 'Reed bank cuff', bead: 'Night water', grams: 4 },
  { piece: 'Reed bank cuff', bead: 'Sedge', grams: 0.6 },
  { piece: 'Orchard choker', bead: 'Sedge', grams: 0.5 },
]
