import { requireLattice } from '../stitch'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { part } from '../../../tests/fixture/piece'
import { requireSpec } from '../../bead/spec'
import { cellsFrom, emptyCells } from '../../grid/cells'
import { discMove, discMoves, pauseWords } from '../../making/disc'
import { strandLists } from '../../tally/strand'
import { neighbourOffsets } from '../lattice'
import { requireTechnique } from '../registry'
import { walked } from '../disc'
import { roundPlan, SEVEN } from './plan'
import { planText, readPlan } from './text'

const SIX = 'slots 7; load 2 3 4 5 6 7; move 3 1; turn 2'
const own = requireTechnique('braid-own')
const work = (table: string, columns: number) => ({ columns, rows: 4, settings: own.settings.parse({ table }) })

describe('a table of moves as text', () => {
  it('says and reads every shipped plan', () => {
    for (const plan of [
      SEVEN,
      ...(
        [
          [8, 32],
          [12, 48],
          [16, 32],
        ] as const
      ).flatMap(([n, slots]) => [roundPlan(n, slots, 'A'), roundPlan(n, slots, 'B')]),
    ]) {
      const read = readPlan(planText(plan))
      expect(read.ok && read.value).toEqual(plan)
    }
  })
  it('takes arrows, commas and lines', () => {
    const read = readPlan('Slots 8\nload 2, 3, 4, 5, 6, 7, 8\nmove 4 → 1\nturn 3')
    expect(read.ok && read.value).toEqual(SEVEN)
  })
  it.each([
    ['slots 8; load 2 3 4; jump 4 1', '“jump 4 1” is not understood'],
    ['slots 8; load 2 3 4; move 4', 'needs two slots'],
    ['slots 8; load 2 3 4 5 6 7 8; move 1 4; turn 3', 'Act 1: Slot 1 is empty'],
    ['slots 8; load 2 3 4 5 6 7 8; move 4 5; turn 3', 'Act 1: Slot 5 holds a strand already'],
    ['slots 8; load 2 3 4 5 6 7 8; move 4 1', 'Add “turn 3” at its end'],
    ['slots 8; load 2 4 6; move 2 1', 'do not lie as at the start'],
    ['slots 8; load 2 2 3; move 2 1; turn 1', 'Two strands are loaded in slot 2'],
    ['slots 8; load 2 3 9; move 2 1', 'There is no slot 9'],
    ['slots 8; load 2 3 4 5 6 7 8; move 3 1; turn 2', 'never moves'],
    ['slots 8; load 2 3 4; turn 1', 'has no move'],
    ['', 'A disc has 4 to 64 slots'],
  ])('refuses “%s”', (text, says) => {
    const read = readPlan(text)
    expect(read.ok ? '' : read.problems[0]!.says).toContain(says)
  })
  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^(slots|load|move|turn) [0-9 ;a-z-]{0,30}$/)), (text) => {
        readPlan(text)
      }),
    )
  })
})

describe('a braid by a table', () => {
  it('takes its strands from the table, and says what is wrong with it', () => {
    expect(own.growth.nearestColumns(8, own.settings.parse({ table: SIX }))).toBe(6)
    expect(own.check(work(SIX, 6))).toEqual([])
    expect(own.check(work(SIX, 7))[0]!.says).toContain('6 strands')
    expect(own.check(work('slots 7; load 2 3; move 3 1', 6))[0]!.says).toContain('at least three strands')
    // one strand that goes to and fro twice while the others wait
    expect(
      own.check(
        work(
          'slots 5; load 2 3 4; move 2 1; move 1 5; move 5 1; move 1 5; turn 1; move 2 1; turn 1; move 1 5; ' +
            'move 2 1; turn 1',
          3,
        ),
      ),
    ).not.toEqual([])
  })
  it('seven strands: every round moves each once, as the literal table does', () => {
    // the slot machine written out: slots of the foam, the hands always taking the fourth after the empty one
    const held = [-1, 0, 1, 2, 3, 4, 5, 6]
    let empty = 0
    for (const { strand, to } of walked(SEVEN, 7 * 20)) {
      const from = (empty + 3) % 8
      expect(held[from]).toBe(strand)
      expect(to - 1).toBe(empty)
      held[empty] = held[from]!
      held[from] = -1
      empty = from
    }
    const order = requireTechnique('braid-7')
    expect([
      ...order.order.row(0, { bead: requireSpec('round-8'), rows: 3, columns: 7, settings: order.settings.parse({}) })
        .keys,
    ]).toEqual([2, 5, 0, 3, 6, 1, 4])
  })
  it('beads touch those beside them on the rope, both ways', () => {
    for (const [table, columns] of [
      [SIX, 6],
      [planText(SEVEN), 7],
      [planText(roundPlan(12, 48, 'B')), 12],
    ] as const) {
      const lattice = requireLattice(own, {
        ...work(table, columns),
        bead: { id: 'round-8', shape: 'round', name: 'round 8/0', l: 2.1, d: 3, h: 1, perGram: 38 },
      })
      for (let c = 0; c < columns; c++) {
        const near = neighbourOffsets(lattice, c, 9)
        expect(near.length).toBeGreaterThanOrEqual(2)
        expect(near.length).toBeLessThanOrEqual(8)
        for (const n of near)
          expect(neighbourOffsets(lattice, c + n.c, 9 + n.r)).toContainEqual({ c: -n.c, r: n.r === 0 ? 0 : -n.r })
      }
    }
  })
  it('painting the surface and reading the strands back gives the same surface, for random patterns', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.infiniteStream(fc.integer({ min: 1, max: 3 })),
        (rounds, stream) => {
          // The surface in the order of laying, by a slot machine of its own.
          const held = [-1, 0, 1, 2, 3, 4, 5, 6]
          const used = new Array<number>(7).fill(0)
          const flat = new Array<number>(7 * rounds).fill(0)
          const surface: { strand: number; k: number; number: number }[] = []
          for (let i = 0, empty = 0; i < 7 * rounds; i++) {
            const from = (empty + 3) % 8
            const strand = held[from]!
            const number = stream.next().value as number
            surface.push({ strand, k: used[strand]!, number })
            flat[used[strand]! * 7 + strand] = number
            used[strand]!++
            held[empty] = strand
            held[from] = -1
            empty = from
          }
          const one = part({
            technique: 'braid-7',
            settings: requireTechnique('braid-7').settings.parse({}),
            spec: 'round-8',
            times: 1,
            start: emptyCells(7, 0),
            repeat: cellsFrom(7, rounds, flat),
            end: emptyCells(7, 0),
          })
          const strung = strandLists(one).map((l) =>
            l.runs.flatMap((run) => Array<number>(run.count).fill(run.number)),
          )
          for (const { strand, k, number } of surface) expect(strung[strand]![k]).toBe(number)
          for (let i = 0; i < 7 * rounds; i++) expect(discMove(one, i)!.number).toBe(surface[i]!.number)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('is led on the disc: every move from the slot that the walk says, with words for the empty slot', () => {
    const one = part({
      technique: 'braid-7',
      settings: requireTechnique('braid-7').settings.parse({}),
      spec: 'round-8',
      times: 1,
      start: emptyCells(7, 0),
      repeat: cellsFrom(
        7,
        10,
        Array.from({ length: 70 }, (_, k) => 1 + (k % 3)),
      ),
      end: emptyCells(7, 0),
    })
    expect(discMoves(one)).toBe(70)
    const laid = walked(SEVEN, 70)
    for (let i = 0; i < 70; i++) {
      const move = discMove(one, i)!
      expect([move.strand, move.from, move.to]).toEqual([laid[i]!.strand, laid[i]!.slot, laid[i]!.to])
      expect(move.round).toBe(1 + Math.floor(i / 7))
    }
    expect(discMove(one, 3)!.words).toContain('empty slot')
    expect(pauseWords(one, 3)).toContain(`Strand ${laid[3]!.strand + 1} moves next`)
  })
})
