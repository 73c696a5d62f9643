import { raggedFrom } from '../core/grid/lines'
import { sized } from '../core/piece/sizes'
import type { Piece } from '../core/piece/piece'
import { costSchema, fitSchema, supplySchema } from '../core/piece/schema'
import { requireTechnique } from '../core/technique/registry'
import { usualClosure } from '../core/wear/closure'
import { trayOf } from './plan'

/** Work on threads, cords, pins and cuffs that no grid decides. */

/** Rungs of a boat ladder: the middle cube wanders from side to side, the seeds beside it answer. */
const BOAT_LADDER = 24
const WANDER = [0, 1, 2, 1] as const

const boatLadder = (): Piece => {
  const rung = (r: number): number[] => [0, 1, 2].map((k) => (k === WANDER[r % 4] ? 3 : r % 2 === 0 ? 1 : 2))
  const lead = [4, 4, 5, 4, 4]
  const sides = (r: number): number[] => [4, r % 2 === 0 ? 5 : 4, 4]
  const four = [1, 2, 3, 0].map((r) => [...sides(r), ...sides(r + 1), ...rung(r)])
  return sized({
    name: 'Boat ladder',
    notes: 'Draw both needles tight after every rung, or the sides stand out.',
    tray: trayOf('cube-3-mm', [
      ['Tarred plank', '#4b3a33', 'matte'],
      ['Wet rope', '#b7a98a', 'opaque'],
      ['Buoy', '#c4542b', 'lustre'],
      ['Foam', '#dfe3dc', 'lustre', 'round-8'],
      ['Deep water', '#1d5a6b', 'transparent', 'round-8'],
    ]),
    fit: fitSchema.parse({
      kind: 'bracelet',
      wearer: 'the fair',
      bodyMm: 165,
      easeMm: 13,
      closure: usualClosure('toggle'),
      widthMm: 9,
    }),
    gauges: [],
    supply: supplySchema.parse({}),
    cost: costSchema.parse({}),
    parts: [
      {
        id: 'ladder',
        name: 'Ladder',
        technique: 'rung-ladder',
        settings: requireTechnique('rung-ladder').settings.parse({}),
        plan: {},
        spec: 'cube-3-mm',
        times: (BOAT_LADDER - 4) / 4,
        on: null,
        start: raggedFrom([[...lead, ...lead, ...rung(0)]]),
        repeat: raggedFrom(four),
        end: raggedFrom([...four.slice(0, 2), [...four[2]!, ...lead, ...lead]]),
      },
    ],
  })
}

export const CARRIER_PIECES: readonly Piece[] = [boatLadder()]
