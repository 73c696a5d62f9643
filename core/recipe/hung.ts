import type { Step } from './language'
import type { Unit } from './run'
import { only, pick, sizesIn, type Row, type RowProgram } from './rows'

/**
 * Strands that hang from a top: out of a bead of it, down the strand, round what ends it, and back up; or across to
 * another bead, as a swag. The beads of the top belong to another part: here they are places that are gone through.
 */
export interface HungStrand {
  readonly row: Row
  /** Place of the top that it hangs from, from 0. */
  readonly at: number
  /** Place that it leads to, of a swag; null of one that comes back. */
  readonly to: number | null
  /** Beads at its end that the thread turns round. */
  readonly turning: number
}

interface Hung {
  /** Places of the top, and how far they are apart, mm. */
  readonly places: number
  readonly pitchMm: number
  /** What a place is called: “top bead”. */
  readonly place: string
  /** Thread of a half hitch at the top after each strand, mm; 0 for none. */
  readonly hitchMm: number
}

/** How many beads of a strand the thread goes back through. */
export const keptOf = ({ row, to, turning }: Pick<HungStrand, 'row' | 'to' | 'turning'>): number =>
  to === null ? Math.max(0, row.length - turning) : row.length

/**
 * Strands one after the other: down through the bead of the top, the strand picked up, back through all but its
 * turning beads, and up through the top again. A swag goes up through another.
 */
export function hung(strands: readonly HungStrand[], { places, pitchMm, place, hitchMm }: Hung): RowProgram {
  const { slots, spec, items } = sizesIn(strands.map(({ row }) => row))
  const through = (fixture: 'top' | 'far', hole: number): Step => ({
    ...{ do: 'fix', fixture, hole },
    note: `number ${hole + 1}`,
  })
  const units = strands.map((strand, motif): Unit => {
    const { row, at, to } = strand
    const kept = keptOf(strand)
    if (row.length === 0) return { section: 'motif', motif, steps: [] }
    return {
      section: 'motif',
      motif,
      steps: only(
        through('top', at),
        pick(items(row, 'row')),
        to === null && kept > 0
          ? {
              do: 'pass',
              refs: [{ bead: 'row', of: 'this', at: kept - 1, to: 0, hole: 'a', way: 'back' }],
              note:
                kept === row.length - 1 ? 'all but the last, which it turns round' : 'all but those it turns round',
            }
          : null,
        { do: 'say', text: `count them before going on: ${row.length}` },
        to === null ? through('top', at) : through('far', to),
        hitchMm > 0 ? { do: 'knot', mm: hitchMm, note: 'half hitch' } : null,
      ),
    }
  })
  const fixture = { name: place, d: 1, holes: Math.max(1, places), pitch: pitchMm }
  return {
    head: {
      slots,
      unit: 'strand',
      carriers: [{ id: 'thread', name: 'thread', kind: 'thread', mm: 0.15 }],
      fixtures: { top: fixture, far: fixture },
      cut: { folded: false, each: 'piece' },
    },
    units,
    spec,
    placeOf: ({ at }) => at,
  }
}

/** Lines on pins that hang: beads go on from the head up, so the last of a line first. */
export function onPins(rows: readonly Row[]): RowProgram {
  const { slots, spec, items } = sizesIn(rows)
  return {
    head: {
      slots,
      unit: 'pin',
      carriers: [{ id: 'pin', name: 'pin', kind: 'pin', mm: 0.6 }],
      fixtures: {},
      cut: { folded: false, each: 'motif' },
    },
    units: rows.map((row, motif) => ({
      section: 'motif',
      motif,
      steps: only(pick(items(row.toReversed(), 'row'), undefined, 'from the head up'), {
        do: 'say',
        text: 'bend the wire over, cut it, and turn the loop',
      }),
    })),
    spec,
    isTurned: () => true,
    placeOf: ({ at, motif }) => rows[motif]!.length - 1 - at,
  }
}
