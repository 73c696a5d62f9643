import { requireSpec, type BeadSpec } from '../../bead/spec'
import type { StrandRule, Zone } from '../../hang/rule'
import { everyFor, middleFirst } from '../../hang/chain'
import { RING_MM } from '../begins'
import { BY_LINKS, chainOf, LINK_MM, NECKLACE_MM, USUAL_LINKS } from '../on-chain'
import { spreadOver } from '../../hang/spread'
import type { AbovePart, Beginning, Begins } from '../begins'

/** What a fringe and dangles begin with. */

const MOST_BEGUN = 60
/** Beads under which small drops have room when strands grow by a bead or two, mm across. */
const LEAST_FOR_DROPS_MM = 2

const odd = (count: number): number => Math.max(3, Math.min(MOST_BEGUN, count % 2 === 0 ? count + 1 : count))

/** A row of so many beads, its pattern alike from both sides. */
const crest = (count: number, shift = 0): number[] =>
  Array.from({ length: count }, (_, c) => ((Math.min(c, count - 1 - c) + shift) % 3 === 0 ? 4 : 2))

const brickRows = (name: string, rows: readonly (readonly number[])[]): AbovePart => ({
  technique: 'brick',
  name,
  settings: {},
  rows,
})

/** A triangle of bricks that stands on so many beads: a bead less with every row up, to two at its tip. */
function gable(count: number): AbovePart {
  const rows = Array.from({ length: count - 1 }, (_, r) => {
    const beads = r + 2
    // Rows lie half a bead aside in turn; the last one begins at the first column.
    const from = Math.floor((count - beads + ((count - beads) % 2)) / 2)
    return Array.from({ length: count }, (_, c) => (c < from || c >= from + beads ? 0 : (c - from) % 2 === 0 ? 2 : 1))
  })
  return brickRows('Gable', rows)
}

/** Holes of a bar for so many strands: about three quarters of them, so that some take two. */
const holesFor = (strands: number): number => {
  const wanted = Math.max(1, Math.round(strands * 0.75))
  return spreadOver(wanted, strands) ? wanted : wanted + 1
}

const tenth = (mm: number): number => Math.round(mm * 10) / 10

/** Clasp of a necklace of cords, mm. */
const CLASP_MM = 11

const ON_CORDS: Beginning = {
  id: 'cords',
  label: 'Two cords, as a front',
  says: 'A row of bricks between the cords of a necklace, by a ring on each side.',
  kinds: ['pendant'],
  above({ count, bead }) {
    const strands = odd(count)
    const across = tenth((strands + 0.5) * bead.d)
    return {
      strands,
      parts: [
        {
          technique: 'finding',
          name: 'Cords',
          settings: { kind: 'strap', strap: 'two', across, tall: NECKLACE_MM, clasp: CLASP_MM, thick: 1.5, grams: 0 },
          rows: [],
        },
        { ...brickRows('Front', [crest(strands), crest(strands, 1)]), ringsAt: [1, 2] },
      ],
      closure: { name: 'Rings', lengthMm: RING_MM },
    }
  },
}

const ON_CHAIN: Beginning = {
  id: 'chain',
  label: 'A chain, as a front',
  says: 'A chain round the neck that carries dangles in its middle, every so many links.',
  kinds: ['pendant'],
  above({ count, widthMm, bead }) {
    const strands = odd(count)
    // Wide enough apart that they hang clear of each other.
    const clear = Math.ceil((bead.d + 1) / LINK_MM)
    const every = Math.max(clear, everyFor(widthMm, strands, LINK_MM))
    const whole = middleFirst(USUAL_LINKS, strands, every) === null ? USUAL_LINKS + 1 : USUAL_LINKS
    return {
      strands,
      parts: [chainOf(whole, every * (strands - 1) + 9)],
      settings: { first: 0, every },
      closure: BY_LINKS,
    }
  },
}

const FROM: readonly Beginning[] = [
  {
    id: 'holes',
    label: 'A bar with holes',
    says: 'A bought bar; a row of beads is sewn through its holes, some of which take two.',
    above({ count, bead }) {
      const strands = odd(count)
      const holes = holesFor(strands)
      const pitch = holes > 1 ? tenth(((strands - 1) * bead.d) / (holes - 1) + 0.05) : bead.d
      return {
        strands,
        parts: [
          {
            technique: 'finding',
            name: 'Bar',
            settings: { kind: 'holes', holes, pitch, tall: 9, grams: 0.8 },
            rows: [],
          },
          brickRows('Crest', [crest(strands)]),
        ],
      }
    },
  },
  {
    id: 'hoop',
    label: 'A hoop',
    says: 'Rows of bricks round the lower part of a hoop, and the fringe on them.',
    above({ count, bead }) {
      const strands = odd(count)
      const across = Math.max(15, Math.round((strands * bead.d) / 1.35))
      return {
        strands,
        parts: [
          { technique: 'finding', name: 'Hoop', settings: { kind: 'hoop', across, thick: 1, grams: 0.9 }, rows: [] },
          brickRows('Rim', [crest(strands), crest(strands, 1)]),
        ],
      }
    },
  },
  {
    id: 'row',
    label: 'A row of beads',
    says: 'No finding: a row of bricks that the ear wire or bail is sewn to.',
    above: ({ count }) => ({
      strands: odd(count),
      parts: [brickRows('Row', [crest(odd(count)), crest(odd(count), 1)])],
    }),
  },
  {
    id: 'gable',
    label: 'A triangle of bricks',
    says: 'No finding: bricks that narrow upward to two, where it hangs.',
    above: ({ count }) => ({ strands: odd(count), parts: [gable(odd(count))] }),
  },
  ON_CORDS,
]

const zone = (beads: number[], grow: Zone['grow'], from: number, more: Partial<Zone> = {}): Zone => ({
  ...{ beads, along: 'strand' as const, grow, from: Math.max(0, from), step: 0, every: 1, to: 0, levelMm: 0, trim: 0 },
  ...more,
})

/** Beads of a size in a length, mm. */
const inLength = (mm: number, bead: BeadSpec): number => Math.max(1, Math.floor(mm / bead.l + 1e-9))

/**
 * Where a fringe hangs from, and how its strands grow: two zones that come to a point, a band between, and a drop.
 */
export const fringeBegins: Begins = {
  from: FROM,
  countFor: (widthMm, bead) => odd(Math.round(widthMm / bead.d)),
  // Under small beads drops would lie on each other.
  sizes: (spec): Readonly<Record<number, string>> =>
    requireSpec(spec).d >= LEAST_FOR_DROPS_MM ? { 4: 'drop-3-4-mm' } : {},
  rule({ strands, longMm, numbers, specOf }): StrandRule {
    const [plain, colour, second, accent, drop] = [0, 1, 2, 3, 4].map(
      (k) => numbers[Math.min(k, numbers.length - 1)]!,
    ) as [...[number, number, number, number, number]]
    const bead = specOf(plain)
    const end = specOf(drop)
    const beads = inLength(longMm - (end.hangs ?? end.d), bead)
    const steps = Math.max(1, Math.ceil(strands / 2) - 1)
    const band = Math.min(4, Math.max(1, beads - 2))
    const rest = Math.max(1, beads - band)
    // The shortest keeps a third; the rest is shared by the steps.
    const step = Math.max(0, Math.min(3, Math.floor((rest * 0.66) / steps)))
    const own = Math.max(0, rest - step * steps)
    const upper = Math.ceil(own / 2)
    return {
      strands,
      edge: 'point',
      waves: 1,
      zones: [
        zone([colour], 'step', upper, { step }),
        zone([accent], 'keep', Math.min(1, band)),
        zone([plain], 'keep', own - upper),
        zone([second, plain], 'keep', Math.max(0, band - 1)),
      ],
      end: [drop],
    }
  },
}

const PIN_FROM: readonly Beginning[] = [
  {
    id: 'holes',
    label: 'A bar with holes',
    says: 'A bought bar with a hole for each dangle.',
    above({ count, bead }) {
      const strands = odd(count)
      return {
        strands,
        parts: [
          {
            technique: 'finding',
            name: 'Bar',
            settings: { kind: 'holes', holes: strands, pitch: tenth(bead.d + 0.6), tall: 8, grams: 0.7 },
            rows: [],
          },
        ],
      }
    },
  },
  {
    id: 'row',
    label: 'A row of bricks',
    says: 'No finding: dangles hang in the loops of a row of bricks.',
    above: ({ count }) => ({
      strands: odd(count),
      parts: [brickRows('Row', [crest(odd(count)), crest(odd(count), 1)])],
    }),
  },
  ON_CHAIN,
]

/** Dangles begin as a set that comes to a point: a seed, beads that grow by one, and a seed at the foot. */
export const danglesBegins: Begins = {
  from: PIN_FROM,
  countFor: (widthMm, bead) => Math.min(9, odd(Math.round(widthMm / (bead.d + 0.6)))),
  sizes: () => ({ 1: 'round-11', 3: 'round-11' }),
  rule({ strands, longMm, numbers, specOf }): StrandRule {
    const [ball, seed, other, foot] = [0, 1, 2, 3].map((k) => numbers[k] ?? numbers[0]!) as [
      ...[number, number, number, number],
    ]
    const beads = inLength(longMm - 2 * specOf(seed).l, specOf(ball))
    return {
      strands,
      edge: 'point',
      waves: 1,
      zones: [
        zone([seed], 'keep', 1),
        zone([ball, other], 'to', Math.max(1, Math.ceil(beads / 3)), { to: beads }),
        zone([foot], 'keep', 1),
      ],
      end: [],
    }
  },
}
