import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { acted, checkPlan, loadedDisc, slotOf, walked, type DiscPlan } from '../disc'
import { roundPlan, SEVEN, type School } from './plan'
import { beadAt, lineOf, linesOf, neighbourSteps, spotOf, stepOf, strandLineOf } from './surface'

const SHIPPED = [
  [8, 32],
  [12, 48],
  [16, 32],
] as const
const SCHOOLS: readonly School[] = ['A', 'B']
const both = SHIPPED.flatMap(([n, slots]) => SCHOOLS.map((school) => ({ n, slots, school })))

/** A slot machine of its own, written from the table of moves alone: eight strands, 32 slots. */
function machine(school: School, rounds: number): { strand: number; from: number; to: number }[] {
  const held = new Map<number, number>([1, 8, 9, 16, 17, 24, 25, 32].map((slot, s) => [slot, s]))
  const out: { strand: number; from: number; to: number }[] = []
  const wrap = (x: number) => ((((x - 1) % 32) + 32) % 32) + 1
  for (let t = 0; t < 4 * rounds; t++) {
    const columns = t % 2 === 0 ? [0, 2] : [1, 3]
    for (const col of columns) {
      const from = wrap(school === 'A' ? 8 * col + 1 - Math.floor(t / 2) : 8 * col + Math.floor(t / 2))
      const to = wrap(school === 'A' ? from + 14 : from - 14)
      const strand = held.get(from)
      if (strand === undefined || held.has(to)) throw new Error(`${from} → ${to} cannot be`)
      held.delete(from)
      held.set(to, strand)
      out.push({ strand, from, to })
    }
  }
  return out
}

describe('the round braid of eight', () => {
  it('moves as the tables say', () => {
    const moves = (school: School, n: number) =>
      roundPlan(8, 32, school)
        .cycle.slice(0, n)
        .map((a) => (a.do === 'move' ? `${a.from}→${a.to}` : `turn ${a.by}`))
    expect(moves('A', 9)).toEqual(['17→31', '1→15', '9→23', '25→7', '32→14', '16→30', '24→6', '8→22', 'turn -2'])
    expect(moves('B', 8)).toEqual(['32→18', '16→2', '8→26', '24→10', '17→3', '1→19', '25→11', '9→27'])
    expect(
      walked(roundPlan(8, 32, 'A'), 12)
        .slice(8, 10)
        .map((l) => `${l.slot}→${l.to}`),
    ).toEqual(['15→29', '31→13'])
  })
  it.each(SCHOOLS)('school %s: the literal slot machine and the closed formula agree for 50 rounds', (school) => {
    const laid = machine(school, 50)
    const count = new Map<number, number>()
    for (const [i, { strand, from }] of laid.entries()) {
      const k = count.get(strand) ?? 0
      count.set(strand, k + 1)
      const { row, col } = spotOf(strand, k, 8, school)
      expect(row).toBe(Math.floor(i / 2))
      // The column is where its strand left; the pairs drift by two slots a round.
      const drift = (school === 'A' ? 1 : -1) * 2 * Math.floor(row / 4)
      expect(Math.round(((slotOf(from + drift, 32) - 0.5) / 8) % 4) % 4).toBe(col)
    }
    const walk = walked(roundPlan(8, 32, school), 400)
    for (let t = 0; t < 200; t++) {
      const pair = (list: readonly { strand: number }[]) => [list[2 * t]!.strand, list[2 * t + 1]!.strand].sort()
      expect(pair(walk)).toEqual(pair(laid))
    }
  })
  it('the schools mirror each other: slot x ↔ 33 − x', () => {
    const mirrored = machine('A', 20).map((m) => `${33 - m.from}→${33 - m.to}`)
    const b = machine('B', 20).map((m) => `${m.from}→${m.to}`)
    for (let t = 0; t < 80; t++)
      expect(new Set(mirrored.slice(2 * t, 2 * t + 2))).toEqual(new Set(b.slice(2 * t, 2 * t + 2)))
  })
})

describe('every shipped braid', () => {
  it.each(both)(
    '$n strands on $slots slots, school $school: is sound, every strand moves once a round, two rounds bring it home',
    ({ n, slots, school }) => {
      const plan = roundPlan(n, slots, school)
      expect(checkPlan(plan)).toEqual([])
      const laid = walked(plan, n * 8)
      for (let round = 0; round < 8; round++)
        expect(new Set(laid.slice(round * n, (round + 1) * n).map((l) => l.strand)).size).toBe(n)
      let disc = loadedDisc(plan)
      for (let k = 0; k < 2; k++)
        for (const act of plan.cycle) {
          const next = acted(disc, act)
          if (next.ok) disc = next.value
        }
      expect(disc.strands).toEqual(loadedDisc(plan).strands)
    },
  )
  it.each(both)('$n strands, school $school: the closed formula is the walk', ({ n, slots, school }) => {
    const count = new Map<number, number>()
    for (const [i, { strand }] of walked(roundPlan(n, slots, school), n * 50).entries()) {
      const k = count.get(strand) ?? 0
      count.set(strand, k + 1)
      expect(spotOf(strand, k, n, school).row).toBe(Math.floor(i / 2))
      expect(stepOf(strand, n, school)).toBe(Math.floor(i / 2) % (n / 2))
    }
  })
  it.each(both)('$n strands, school $school: surface and strands are one another, there and back', ({ n, school }) => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: n - 1 }), fc.integer({ min: 0, max: 999 }), (s, k) => {
        expect(beadAt(spotOf(s, k, n, school), n, school)).toEqual({ s, k })
      }),
    )
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4000 }), fc.integer({ min: 0, max: n / 2 - 1 }), (row, col) => {
        const bead = beadAt({ row, col }, n, school)
        expect(bead === null).toBe((school === 'A' ? row - col : row + col) % (n / 4) !== 0)
        if (bead) expect(spotOf(bead.s, bead.k, n, school)).toEqual({ row, col })
      }),
    )
  })
  it.each(both)(
    '$n strands, school $school: six beads touch each, and touching is mutual; lines are whole and one strand ' +
      'keeps one line',
    ({ n, school }) => {
      const steps = neighbourSteps(n, school)
      fc.assert(
        fc.property(fc.integer({ min: 0, max: n - 1 }), fc.integer({ min: 3, max: 500 }), (s, k) => {
          const { row, col } = spotOf(s, k, n, school)
          const around = steps.map(({ dc, dt }) => beadAt({ row: row + dt, col: (col + dc + n) % (n / 2) }, n, school))
          expect(around.every((b) => b !== null)).toBe(true)
          expect(new Set(around.map((b) => `${b!.s}/${b!.k}`)).size).toBe(6)
          expect(steps.every(({ dc, dt }) => steps.some((o) => o.dc === -dc && o.dt === -dt))).toBe(true)
          const line = lineOf({ row, col }, n, school)
          expect(Number.isInteger(line) && line >= 0 && line < linesOf(n)).toBe(true)
          expect(strandLineOf({ row, col }, n, school)).toBe(strandLineOf(spotOf(s, 0, n, school), n, school))
        }),
      )
    },
  )
  it('eight strands lie in six lines, of which each holds a bead at every third row (craft formula)', () => {
    for (const school of SCHOOLS) {
      for (let s = 0; s < 8; s++) {
        for (let k = 0; k < 12; k++) {
          const { row, col } = spotOf(s, k, 8, school)
          const line = lineOf({ row, col }, 8, school)
          expect(row % 3).toBe((2 * line) % 3)
          expect(
            school === 'A' ? ((((row - 2 * line) / 3) % 4) + 4) % 4 : ((((2 * line - row) / 3) % 4) + 4) % 4,
          ).toBe(col)
        }
      }
    }
  })
})

describe('what loadings look like (school A)', () => {
  const around = (colourOf: (s: number) => string) => {
    const rows = new Map<string, string>()
    for (let s = 0; s < 8; s++)
      for (let k = 0; k < 24; k++) {
        const { row, col } = spotOf(s, k, 8, 'A')
        rows.set(`${row}/${col}`, colourOf(s))
      }
    return rows
  }
  it('single-colour strands are eight spiral lines, in the order of slots 1, 8, 32, 25, 17, 24, 16, 9', () => {
    const slots = [1, 8, 9, 16, 17, 24, 25, 32]
    const order = Array.from(
      { length: 8 },
      (_, line) =>
        slots[
          Array.from({ length: 8 }, (_x, s) => s).find((s) => strandLineOf(spotOf(s, 0, 8, 'A'), 8, 'A') === line)!
        ]!,
    )
    const wanted = [1, 8, 32, 25, 17, 24, 16, 9]
    const turned = wanted.map((_, k) => [...wanted.slice(k), ...wanted.slice(0, k)].join())
    expect([...turned, ...turned.map((t) => t.split(',').reverse().join())]).toContain(order.join())
  })
  it('north and south against east and west is a double helix: opposite columns alike', () => {
    // A column runs along the rope and twists with it: one pair of opposite columns is of the one colour, the other of
    // the other.
    for (const [key, colour] of around((s) => ([0, 7, 3, 4].includes(s) ? 'x' : 'o')))
      expect(colour).toBe(Number(key.split('/')[1]) % 2 === 0 ? 'x' : 'o')
  })
  it('one odd strand is a dotted spiral: each of its beads lies away from the last', () => {
    const rows = around((s) => (s === 2 ? 'x' : 'o'))
    const mine = [...rows]
      .filter(([, c]) => c === 'x')
      .map(([key]) => key.split('/').map(Number) as [number, number])
      .sort((a, b) => a[0] - b[0])
    for (let i = 1; i < mine.length; i++) {
      const [dt, dc] = [mine[i]![0] - mine[i - 1]![0], (((mine[i]![1] - mine[i - 1]![1]) % 4) + 4) % 4]
      expect(neighbourSteps(8, 'A').some((n) => n.dt === dt && ((n.dc % 4) + 4) % 4 === dc)).toBe(false)
    }
  })
})

describe('seven strands, and tables of one’s own', () => {
  it('seven on eight slots go round, one at a time', () => {
    expect(checkPlan(SEVEN)).toEqual([])
    const laid = walked(SEVEN, 70)
    for (let i = 0; i + 7 <= 70; i += 7) expect(new Set(laid.slice(i, i + 7).map((l) => l.strand)).size).toBe(7)
  })
  it.each<[string, Partial<DiscPlan>, string]>([
    ['an empty slot', { cycle: [{ do: 'move', from: 1, to: 2 }] }, 'slot-empty'],
    ['a full slot', { cycle: [{ do: 'move', from: 4, to: 5 }] }, 'slot-full'],
    ['a slot that is not there', { cycle: [{ do: 'move', from: 9, to: 1 }] }, 'move-range'],
    ['a cycle that ends turned', { cycle: [{ do: 'move', from: 4, to: 1 }] }, 'cycle-shift'],
    ['two in one slot', { load: [2, 2, 3, 4] }, 'load-twice'],
    ['no moves', { cycle: [{ do: 'turn', by: 1 }] }, 'cycle-empty'],
    [
      'a strand that stands still',
      {
        slots: 8,
        load: [1, 3, 5],
        cycle: [
          { do: 'move', from: 1, to: 2 },
          { do: 'move', from: 2, to: 1 },
        ],
      },
      'strand-idle',
    ],
    ['a disc of three', { slots: 3 }, 'slots'],
  ])('%s is refused with a sentence', (_, over, code) => {
    const [found] = checkPlan({ ...SEVEN, ...over })
    expect(found!.code).toBe(code)
    expect(found!.says).toMatch(/[.”]$/)
  })
})
