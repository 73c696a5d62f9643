import { describe, expect, it } from 'vitest'
import { flower, lozenge } from '../../../tests/fixture/recipe'
import { ownRecipe } from '../../../tests/fixture/own-recipe'
import { walk } from '../../../tests/fixture/walk'
import { requireSpec } from '../../bead/spec'
import { beginPiece } from '../../begin/begin'
import { readPieceFile, writePieceFile } from '../../format/piece-file'
import { reportPiece } from '../../format/report'
import { linesOf } from '../../grid/lines'
import { pieceFromBody, pieceToBody } from '../../piece/codec'
import { workOf, type Part, type Piece } from '../../piece/piece'
import { scriptSteps } from '../../piece/recast'
import { applySteps, invertSteps } from '../../piece/step'
import { partFindings } from '../../proof/finding'
import { valueOf } from '../../problem'
import { recipeText } from '../../recipe/shorthand'
import { pathOf, threadCuts } from '../../supply/thread'
import { tallyPart } from '../../tally/tally'
import { usualClosure } from '../../wear/closure'
import { requireTechnique } from '../registry'

const many = (...runs: [number, number][]) => runs.flatMap(([count, n]) => Array<number>(count).fill(n))
const onlyPart = (p: Piece): Part => p.parts[0]!
/** Four stem beads, seven petals, a centre; the end has four stem beads. */
const flowers = (n: number) =>
  ownRecipe(flower, { motif: many([4, 1], [4, 2], [1, 3], [3, 2]), end: many([4, 1]) }, { times: n })
/** Lozenges of three almonds a side: link and loop first; six almonds, a link and a centre each; a loop behind. */
const lozenges = (n: number) =>
  ownRecipe(
    lozenge,
    {
      start: many([1, 3], [7, 4]),
      motif: many([3, 1], [1, 3], [3, 1], [1, 2]),
      end: many([7, 4]),
    },
    { times: n },
  )

describe('work by a recipe of one’s own', () => {
  it('counts what the recipe picks up, whatever it does with it', () => {
    // By hand: 16 lozenges take 6 almonds, a link and a centre each, and a link and two loops besides.
    expect(Object.fromEntries(tallyPart(onlyPart(lozenges(16))))).toEqual({ 1: 96, 2: 16, 3: 17, 4: 14 })
    const told = reportPiece(lozenges(16)).parts[0]!.told!
    expect(Object.fromEntries(told.slots.map(({ slot, beads }) => [slot, beads]))).toEqual({
      duo: 96,
      centre: 16,
      link: 17,
      loop: 14,
    })
    expect(partFindings(onlyPart(lozenges(16)))).toEqual([])
  })
  it('tells passes by hole and each carrier’s way, as a walk does that knows nothing of it', () => {
    for (const [p, recipe, n] of [
      [flowers(6), flower, 6],
      [lozenges(5), lozenge, 5],
    ] as const) {
      const told = reportPiece(p).parts[0]!.told!
      const { beads, holes } = walk(recipe, n)
      expect(told.beads).toBe(beads.size)
      for (const { slot, spec, holes: sums } of told.slots)
        for (const { hole, passes } of sums)
          expect(passes, `${slot} ${hole}`).toBe(
            holes.filter((h) => h.hole === hole && beads.get(h.bead) === slot && recipe.slots[slot]!.spec === spec)
              .length,
          )
      const through = holes.reduce((sum, { bead }) => sum + requireSpec(recipe.slots[beads.get(bead)!]!.spec).l, 0)
      expect(told.carriers[0]!.throughMm).toBeCloseTo(through, 6)
    }
    // Both holes of an almond: strung by the first, the ring drawn together by the second.
    const duo = reportPiece(lozenges(4)).parts[0]!.told!.slots.find(({ slot }) => slot === 'duo')!
    expect(duo.holes.map(({ hole, most }) => [hole, most])).toEqual([
      ['a', 1],
      ['b', 1],
    ])
    const path = pathOf(onlyPart(lozenges(4)))
    expect([path.passesAt!(0, 1, 'a'), path.passesAt!(0, 1, 'b'), path.passesAt!(0, 0, 'a')]).toEqual([1, 1, 4])
  })
  it('says every step in words, those of the start with the first line', () => {
    const [first, second] = reportPiece(flowers(3)).parts[0]!.tally.byRow
    expect(first!.words).toBe(
      'Line 1 → 4A 4B 1C 3B (12) · through the end cap · pick up 4 stem beads, 4 petals, 1 centre bead · ' +
        'back through the 1st petal · pick up 3 petals · back through the 4th petal — the petal beside the centre',
    )
    expect(second!.words).not.toContain('cap')
  })
  it('is cut in one thread, or a length for every motif, or folded', () => {
    const cut = { folded: false, each: 'motif' as const }
    const one = threadCuts(flowers(6), onlyPart(flowers(6)))
    const each = ownRecipe({ ...flower, cut }, { motif: many([12, 2]), end: many([4, 1]) }, { times: 6 })
    const [apart] = threadCuts(each, onlyPart(each))
    expect(one).toHaveLength(1)
    expect([one[0]!.pieces, apart!.pieces]).toEqual([1, 6])
    // Through the same holes; only what leads from motif to motif is spared.
    const ratio = apart!.pathMm / one[0]!.pathMm
    expect(ratio).toBeGreaterThan(0.95)
    expect(ratio).toBeLessThan(1.05)
    // Every length has its own tails.
    expect(apart!.totalMm).toBeGreaterThan(one[0]!.totalMm + 5 * 300)
  })
  it('keeps its recipe in the file, and takes it in short hand', () => {
    const p = flowers(4)
    const again = valueOf(readPieceFile(writePieceFile(p)))
    expect(again.parts[0]!.plan).toEqual(p.parts[0]!.plan)
    const body = pieceToBody(p)
    const short = valueOf(
      pieceFromBody({
        ...body,
        parts: [{ ...body.parts[0]!, plan: { recipe: recipeText(flower), params: { p: 5 } } }],
      }),
    )
    expect(short.parts[0]!.plan).toEqual({ recipe: flower, params: { p: 5 } })
  })
  it('refuses what cannot be carried out with the step and what to do', () => {
    const body = pieceToBody(flowers(4))
    const says = (plan: unknown, times = 4): string => {
      const read = pieceFromBody({ ...body, parts: [{ ...body.parts[0]!, times, plan }] })
      return read.ok ? '' : read.problems.map((p) => p.says).join(' ')
    }
    const steps = (motif: unknown[]) => ({ recipe: { ...flower, motif } })
    expect(says(steps([{ do: 'pick', items: [{ slot: 'leaf' }] }]))).toContain('There is no bead “leaf”')
    expect(says(steps([{ do: 'fly' }]))).toContain('motif/0/do: Invalid')
    const stem = { do: 'pick', items: [{ slot: 'stem' }] }
    expect(says(steps([{ do: 'each', with: 'k', times: 1_000_000, steps: [stem] }]))).toContain('pick up fewer')
    const turn = { do: 'each', with: 'k', times: 1_000_000, steps: [{ do: 'say', text: 'turn' }] }
    expect(says(steps([turn]))).toContain('repeat less often')
    expect(says(steps([{ do: 'each', with: 'k', times: 400, steps: [stem] }]), 1900)).toContain('Make fewer motifs')
    expect(says({ recipe: 'recipe x "X"\ncarrier t thread 0.2 "thread"\nmotif\n  pick leaf' })).toContain('leaf')
  })
  it('says where lines and recipe differ, and goes on with both', () => {
    const p = ownRecipe(flower, { motif: many([4, 1], [6, 2]), end: many([9, 1]) }, { times: 3 })
    const [finding, ...others] = partFindings(onlyPart(p))
    expect(others).toEqual([])
    expect(finding!.says).toBe(
      'Line 1 holds 10 beads, and the recipe picks up 12 there, and 3 more lines differ: lay as many as it picks up.',
    )
    // Beads that the recipe does not string are laid and drawn; what it strings beyond the line has no colour.
    expect(reportPiece(p).parts[0]!.tally.beads).toBe(39)
    expect(reportPiece(p).parts[0]!.told!.beads).toBe(40)
  })
  it('finds what the recipe itself does wrong', () => {
    const unused = { ...lozenge, motif: lozenge.motif.filter((_, k) => k !== 2) }
    const p = ownRecipe(unused, { start: many([8, 3]), motif: many([8, 1]), end: many([7, 4]) })
    expect(partFindings(onlyPart(p))[0]!.says).toContain('second hole of almond 1')
  })
  it('is as long as it is laid until a motif is measured, ± 10 %', () => {
    const technique = requireTechnique('own-recipe')
    const work = (motif: number, times = 6) => ({ ...workOf(onlyPart(flowers(times))), settings: { motif } })
    const long = (motif: number, times: number) => technique.extent(work(motif, times)).lengthMm.nominal
    expect(technique.extent(work(0)).basis).toMatchObject({ spread: 0.1 })
    // Common practice: flowers of 8/0 with 4 stem beads and 7 petals measure about 14.5 mm, 28 of them 16 inches.
    const laid = (long(0, 40) - long(0, 12)) / 28
    expect(Math.abs(laid / 14.5 - 1)).toBeLessThan(0.03)
    expect(Math.abs((28 * laid) / (16 * 25.4) - 1)).toBeLessThan(0.03)
    // A measured motif takes the place of the laid one, and leaves the ends as they are.
    expect(long(14, 9) - long(0, 9)).toBeCloseTo(9 * (14 - laid), 6)
    for (const n of [1, 5, 40]) {
      const w = work(0, n)
      expect(technique.growth.rowsFor(technique.growth.lengthOf({ ...w, rows: n + 1 }), w)).toBeCloseTo(n + 1, 6)
    }
  })
  it('is begun with a recipe that works, as long as it is wanted', () => {
    const p = beginPiece({
      kind: 'bracelet',
      name: 'New chain',
      wearer: '',
      bodyMm: 165,
      easeMm: 13,
      widthMm: 9,
      closure: usualClosure('toggle'),
      technique: 'own-recipe',
      spec: 'round-8',
      motif: 'plain',
      start: 'left',
    })
    expect(partFindings(onlyPart(p))).toEqual([])
    const [start, motif, end] = (['start', 'repeat', 'end'] as const).map((s) =>
      linesOf(onlyPart(p)[s]).map((l) => [...l]),
    )
    expect([start, motif, end]).toEqual([
      [many([6, 1])],
      [many([3, 2], [3, 3], [1, 4], [3, 3])],
      [many([3, 2], [6, 1])],
    ])
  })
  it('is written as a text; a change takes the lines with it, and every colour that still has a place', () => {
    const p = ownRecipe(
      flower,
      { motif: [1, 1, 1, 1, 2, 4, 2, 2, 3, 2, 2, 2], end: many([4, 1]) },
      { times: 3, params: { s: 4 } },
    )
    const tray = [...p.tray, { ...p.tray[1]!, number: 4, letter: 'D' }]
    const own = { ...p, tray }
    // A petal more on each side, smaller centres, and a loop of small seeds before the first flower.
    const text = recipeText(flower)
      .replace('5..12=7', '5..12=9')
      .replace('bead centre round-8', 'bead loop round-15 "loop seed" "loop seeds"\nbead centre faceted-3-mm')
      .replace('  fix cap\n', '  fix cap\n  pick loop*5\n')
    const steps = valueOf(scriptSteps(own, onlyPart(own), text))
    const done = valueOf(applySteps(own, steps))
    const [start, motif, end] = (['start', 'repeat', 'end'] as const).map((s) =>
      linesOf(onlyPart(done)[s]).map((l) => [...l]),
    )
    // New sizes come to the tray; the red petal stays the second of its name, in all other places colours go on.
    expect(done.tray.slice(4).map((b) => [b.number, b.spec, b.name])).toEqual([
      [5, 'round-15', 'loop seed'],
      [6, 'faceted-3-mm', 'centre bead'],
    ])
    expect([start, motif, end]).toEqual([[many([5, 5])], [[1, 1, 1, 1, 2, 4, 2, 2, 2, 6, 2, 2, 2, 2]], [many([4, 1])]])
    expect(partFindings(onlyPart(done))).toEqual([])
    expect(onlyPart(done).times).toBe(3)
    expect(onlyPart(done).plan).toMatchObject({ params: { s: 4 } })
    expect(pieceToBody(valueOf(applySteps(done, invertSteps(steps))))).toEqual(pieceToBody(own))
    // The same text changes nothing but the id; a wrong one says where.
    const again = valueOf(applySteps(own, valueOf(scriptSteps(own, onlyPart(own), recipeText(flower)))))
    expect(linesOf(onlyPart(again).repeat).map((l) => [...l])).toEqual(
      linesOf(onlyPart(own).repeat).map((l) => [...l]),
    )
    const wrong = scriptSteps(own, onlyPart(own), recipeText(flower).replace('pass petal<', 'pass leaf'))
    expect(wrong.ok ? '' : wrong.problems[0]!.says).toContain('leaf')
  })
})
