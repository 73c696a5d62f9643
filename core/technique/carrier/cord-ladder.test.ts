import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { rowPiece, runs } from '../../../tests/fixture/rows'
import { beginPiece } from '../../begin/begin'
import { choiceSteps, fitChoices } from '../../fit/choices'
import { extentOf } from '../../fit/extent'
import { linesOf } from '../../grid/lines'
import { pieceToBody } from '../../piece/codec'
import { centreOf, freeOf } from '../../piece/drawing'
import type { Part, Piece } from '../../piece/piece'
import { asLinesSteps, settingSteps } from '../../piece/recast'
import { applySteps, invertSteps } from '../../piece/step'
import { partFindings } from '../../proof/finding'
import { valueOf } from '../../problem'
import { holeChecks, pathOf } from '../../supply/thread'
import { needsFor, toolsFor } from '../../supply/tools'
import { tallyPart } from '../../tally/tally'
import { rowWords } from '../../tally/words'
import { usualClosure } from '../../wear/closure'

const INCH = 25.4
const onlyPart = (p: Piece): Part => p.parts[0]!
const runOf = (p: Piece, id: string) => pathOf(onlyPart(p), p).runs.find((run) => run.id === id)!
const TAPER = [[2], [2, 2], [2, 2, 2]]
const MAIN = [2, 1, 2]

/** Rows of small, large, small between tapers, closed with a button and so many openings. */
const ladder = (
  rows: number,
  openings: number,
  more: object = {},
  specs: readonly string[] = ['faceted-3-mm', 'round-8'],
) =>
  rowPiece('cord-ladder', specs, [MAIN], {
    times: rows,
    start: TAPER,
    end: TAPER.toReversed(),
    fit: { closure: { ...usualClosure('button'), openings, openingStepMm: 25 } },
    ...more,
  })

describe('a ladder between cords', () => {
  it('takes 30 inches of cord for 7 inches with two openings (common practice)', () => {
    const single = ladder(53, 2)
    expect(extentOf(single, onlyPart(single)).lengthMm.nominal / INCH).toBeCloseTo(7, 1)
    expect(Math.abs(runOf(single, 'cord').lengthMm / INCH - 30)).toBeLessThan(1.5)
  })
  it('takes about 40 inches of cord and 80 of thread for twice round (common practice)', () => {
    const double = ladder(86, 1, {}, ['faceted-4-mm', 'round-11'])
    expect(extentOf(double, onlyPart(double)).lengthMm.nominal / INCH).toBeCloseTo(14, 0)
    expect(Math.abs(runOf(double, 'cord').lengthMm / INCH - 40)).toBeLessThan(3)
    expect(Math.abs(runOf(double, 'thread').lengthMm / INCH - 80)).toBeLessThan(8)
  })
  it('has cord for each side and the openings, thread for both ways through every row: by hand', () => {
    const p = ladder(2, 1, { settings: { cord: 2, button: 12, bind: 0 } })
    // Six rows that taper, of 3.0; two of seeds of 3.0, the largest there is.
    expect(extentOf(p, onlyPart(p)).lengthMm.nominal).toBeCloseTo(8 * 3, 9)
    expect(runOf(p, 'cord')).toMatchObject({ count: 1, lengthMm: 2 * 24 + 2 * (12 + 25) + 225 })
    const beads = 2 * 2.1 * (1 + 2 + 3 + 3 + 2 + 1) + 2 * 2 * (2 * 2.1 + 2.8)
    const turns = 8 * Math.PI * (2 + 0.15)
    // From row to row at the near cord: as far as their middles and their ends lie apart.
    const steps = [1, 1, (7.0 - 6.3) / 2.1, 0, (7.0 - 6.3) / 2.1, 1, 1].reduce(
      (sum, wider) => sum + Math.hypot(3, (wider * 2.1) / 2),
      0,
    )
    expect(runOf(p, 'thread').lengthMm).toBeCloseTo(beads + turns + steps, 6)
    // Without an opening there are two cords, with something to hold at each end.
    const plain = rowPiece('cord-ladder', ['round-8'], [[1, 1]], {
      times: 10,
      fit: { closure: usualClosure('toggle') },
    })
    expect(runOf(plain, 'cord')).toMatchObject({ count: 2, lengthMm: 10 * 3 + 2 * 75 })
  })
  it('passes every hole twice, a tile by both holes, and says so', () => {
    const p = rowPiece('cord-ladder', ['tile-5-mm', 'round-8'], [[1], [2, 2]], { times: 4 })
    const path = pathOf(onlyPart(p))
    expect([path.passesAt!(0, 0, 'a'), path.passesAt!(0, 0, 'b'), path.passesAt!(1, 1, 'a')]).toEqual([2, 2, 2])
    expect(rowWords(onlyPart(p), 0).told!.map(({ says }) => says)).toEqual([
      'wind 10 turns round the near cord',
      'pick up 1 bead by the first hole',
      'wind half a turn round the far cord',
      'back through the bead, first hole',
      'wind half a turn round the near cord',
      'wind 1 turn round the near cord',
      'through the bead, second hole',
      'wind half a turn round the far cord',
      'back through the bead, second hole',
      'wind half a turn round the near cord',
    ])
    expect(holeChecks(p, onlyPart(p)).map(({ spec, passes, where }) => `${spec} ${passes} ${where}`)).toContain(
      'tile-5-mm 2 work',
    )
  })
  it('lies in rows one on the other about one middle, between two cords that follow their ends', () => {
    const p = ladder(4, 1)
    const middles = [0, 3, 5].map((r) => {
      const row = onlyPart(p)
      const [a, b] = [centreOf(row, 0, r), centreOf(row, r === 0 ? 0 : 2, r)]
      return (a.x + b.x) / 2
    })
    expect(new Set(middles.map((x) => x.toFixed(6))).size).toBe(1)
    const [cord, ...others] = freeOf(onlyPart(p))!.carriers.filter(
      ({ kind, points }) => kind === 'cord' && points.length > 9,
    )
    expect(others).toEqual([])
    // Beside a row of one seed a cord lies half a seed from the middle, and half of itself.
    const beside = cord!.points.filter(({ y }) => Math.abs(y - centreOf(onlyPart(p), 0, 0).y) < 1e-9)
    expect(beside.map(({ x }) => Math.round((x - middles[0]!) * 1e6) / 1e6)).toEqual([-1.8, 1.8])
  })
  it('says where the cords would spread', () => {
    expect(partFindings(onlyPart(ladder(6, 1)))).toEqual([])
    const p = rowPiece('cord-ladder', ['round-8'], [[1], runs([4, 1])], { times: 3 })
    expect(partFindings(onlyPart(p))[0]!.says).toBe(
      'Row 2 is 6.3 mm longer or shorter than row 1, and so in 4 more places: the cords spread there and show. Lay ' +
        'rows between that grow by a bead or two.',
    )
  })
  it('is begun in tapers, as long as it is wanted', () => {
    const p = beginPiece({
      ...{ kind: 'bracelet', name: 'New', wearer: '', bodyMm: 165, easeMm: 13, widthMm: 9 },
      ...{ closure: usualClosure('button'), technique: 'cord-ladder', spec: 'faceted-4-mm' },
      ...{ motif: 'plain', start: 'left' },
    })
    expect(linesOf(onlyPart(p).start).map((l) => [...l])).toEqual(TAPER)
    expect(linesOf(onlyPart(p).repeat).map((l) => [...l])).toEqual([MAIN])
    expect(linesOf(onlyPart(p).end).map((l) => [...l])).toEqual(TAPER.toReversed())
    expect(p.tray.map((b) => b.spec)).toEqual(['faceted-4-mm', 'round-8'])
    expect(Math.abs(fitChoices(p).find((c) => c.current)!.fit.differenceMm)).toBeLessThan(4)
  })
  it('takes more rows between its tapers and its repeat, never outside them', () => {
    const p = rowPiece('cord-ladder', ['faceted-4-mm', 'round-8'], Array(7).fill(MAIN), {
      ...{ times: 5, start: TAPER, end: TAPER.toReversed() },
      fit: { closure: usualClosure('button') },
    })
    const choice = fitChoices(p).find((c) => c.startRows + c.endRows > 0)!
    const done = valueOf(applySteps(p, choiceSteps(p, choice)))
    const lines = linesOf(onlyPart(done).start).map((l) => [...l])
    expect(lines.slice(0, 3)).toEqual(TAPER)
    expect(lines.slice(3)).toEqual(Array.from({ length: choice.startRows }, () => MAIN))
    expect(
      linesOf(onlyPart(done).end)
        .map((l) => [...l])
        .slice(-3),
    ).toEqual(TAPER.toReversed())
    expect(extentOf(done, onlyPart(done)).lengthMm.nominal).toBeCloseTo(choice.fit.beadworkMm.nominal, 6)
    // Where it gives, tapers stay.
    const less = fitChoices({ ...p, fit: { ...p.fit, bodyMm: 100 } }).find((c) => c.startRows < 0 || c.endRows < 0)
    expect(less).toBeUndefined()
  })
  it('grows and shrinks in the middle of its rows; its tapers stay', () => {
    const p = ladder(3, 1)
    const wider = valueOf(applySteps(p, settingSteps(p, onlyPart(p), { ...onlyPart(p).settings, row: 5 }, 1)))
    expect(linesOf(onlyPart(wider).repeat).map((l) => [...l])).toEqual([[2, 1, 1, 1, 2]])
    expect(linesOf(onlyPart(wider).start).map((l) => [...l])).toEqual(TAPER)
    const back = valueOf(
      applySteps(wider, settingSteps(wider, onlyPart(wider), { ...onlyPart(wider).settings, row: 3 }, 1)),
    )
    expect(pieceToBody(back)).toEqual(pieceToBody(p))
  })
  it('says tools, and how it is held, begun, knotted and bound', () => {
    const p = ladder(6, 2)
    expect(toolsFor(p)[0]).toBe('Board with clips, or lap loom')
    expect(toolsFor(p)).toContain('Glue for thread and cord')
    expect(needsFor(p)).toEqual([])
  })
})

describe('a ladder of a grid, woven between cords', () => {
  const grid = piece({
    tray: [bead(1), bead(2)],
    parts: [
      part({
        technique: 'ladder',
        settings: { start: 'left', cordMm: 2 },
        times: 3,
        start: rows('AA'),
        repeat: rows('AB', 'BA'),
        end: rows('BB'),
      }),
    ],
  })
  it('keeps every bead and its repeat, in one transaction that can be taken back', () => {
    const steps = asLinesSteps(grid, onlyPart(grid))!
    const done = valueOf(applySteps(grid, steps))
    expect(onlyPart(done)).toMatchObject({ technique: 'cord-ladder', times: 3, settings: { cord: 2 } })
    expect([...tallyPart(onlyPart(done))]).toEqual([...tallyPart(onlyPart(grid))])
    expect(linesOf(onlyPart(done).repeat).map((l) => [...l])).toEqual([
      [1, 2],
      [2, 1],
    ])
    expect(pieceToBody(valueOf(applySteps(done, invertSteps(steps))))).toEqual(pieceToBody(grid))
  })
  it('is offered to what becomes such work only', () => {
    expect(asLinesSteps(piece(), piece().parts[0]!)).toBeNull()
    expect(asLinesSteps(ladder(3, 1), onlyPart(ladder(3, 1)))).toBeNull()
  })
})
