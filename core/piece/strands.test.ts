import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, piece } from '../../tests/fixture/piece'
import { requireSpec } from '../bead/spec'
import { beginPiece } from '../begin/begin'
import { choiceSteps } from '../fit/choices'
import { choicesFor } from '../fit/hang-choices'
import { fitOf } from '../fit/reckon'
import { strandListsCsv } from '../format/strand-lists-csv'
import { readPieceFile, writePieceFile } from '../format/piece-file'
import { raggedFrom } from '../grid/lines'
import { EDGES, strandRuleSchema, type StrandRule } from '../hang/rule'
import { agendaOf, beadsAt, placeOf, placesDoneIn, taskAt } from '../making/agenda'
import { valueOf } from '../problem'
import { partFindings } from '../proof/finding'
import { weightOf } from '../supply/cost'
import { rowWords, asWords } from '../tally/words'
import { tallyPiece, totalOf } from '../tally/tally'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { usualClosure } from '../wear/closure'
import type { FitKind } from '../wear/kind'
import { alikeSteps, sameAsEarlier } from './alike'
import { checkPiece, pieceToBody } from './codec'
import { insertSlotsStep, layingSteps, setStep } from './edit'
import { hung, placesAlong } from './held'
import { isOwnMirror, isTurnedCopy, pairWords, secondDiffers } from './pair'
import { fittedPart, partRow, rowsOf, type Part, type Piece } from './piece'
import { settingSteps } from './recast'
import { sized } from './sizes'
import { applySteps, invertSteps, type Step } from './step'
import {
  guessedRule,
  ownStrandSteps,
  ruleSteps,
  strandCards,
  strandPlanSteps,
  strandsOf,
  typedStrandSteps,
} from './strands'

const begun = (hangsFrom = 'row', technique = 'fringe', bodyMm = 60, kind: FitKind = 'earrings'): Piece =>
  beginPiece({
    ...{ kind, name: 'Fall', wearer: '', bodyMm, easeMm: 0, widthMm: 24, technique, hangsFrom },
    ...{ spec: technique === 'fringe' ? 'round-11' : 'ball-4-mm', motif: 'plain', start: 'left' },
    closure: usualClosure('ear-wire'),
  })
const after = (p: Piece, steps: readonly Step[]): Piece => valueOf(applySteps(p, steps))
const listsOf = (part: Part): number[][] => Array.from({ length: rowsOf(part) }, (_, r) => [...partRow(part, r)])
const ruleOf = (part: Part): StrandRule => requireTechnique(part.technique).strands!.plan(part.plan).rule!

describe('work that hangs', () => {
  it.each(
    TECHNIQUES.filter((t) => t.begins).flatMap((t) =>
      t.begins!.from.flatMap(({ id, kinds }) =>
        (kinds ?? (['earrings', 'pendant'] as const)).map((k) => [t.id, id, k] as const),
      ),
    ),
  )(
    '%s begins from %s for a %s as long as is wanted, sound, and nothing of it stops the work',
    (technique, from, kind) => {
      for (const bodyMm of [45, 60, 80]) {
        const p = begun(from, technique, bodyMm, kind)
        expect(checkPiece(p)).toEqual([])
        // It hangs where it was asked to: from as many parts as that beginning has.
        const { parts } = requireTechnique(technique)
          .begins!.from.find(({ id }) => id === from)!
          .above({ count: 9, widthMm: 24, bead: requireSpec('round-11') })
        expect(p.parts.map((q) => q.technique).slice(0, -1)).toEqual(parts.map((q) => q.technique))
        expect(p.parts.flatMap((q) => partFindings(q, p).map((f) => f.code))).not.toContain('strands-aside')
        expect(Math.abs(fitOf(p).differenceMm)).toBeLessThan(technique === 'fringe' ? 2.5 : 4.5)
        expect(p.parts.flatMap((q) => partFindings(q, p)).filter((f) => f.weight === 'stops')).toEqual([])
        const back = valueOf(readPieceFile(writePieceFile(p)))
        expect(back).toEqual(p)
        expect(isOwnMirror(fittedPart(p))).toBe(true)
      }
    },
  )
  it('a rule that changes takes the strands with it, in one edit that can be undone whole', () => {
    const p = begun()
    const part = fittedPart(p)
    const rule = ruleOf(part)
    const longer = { ...rule, zones: rule.zones.map((z, k) => (k === 0 ? { ...z, from: z.from + 3 } : z)) }
    const steps = ruleSteps(p, part, longer)
    const next = after(p, steps)
    expect(totalOf(tallyPiece(next))).toBe(totalOf(tallyPiece(p)) + 3 * rowsOf(part))
    expect(fitOf(next).finishedMm.nominal).toBeCloseTo(fitOf(p).finishedMm.nominal + 3 * 1.4, 6)
    expect(weightOf(next)).toBeCloseTo(weightOf(p) + (3 * rowsOf(part)) / 110, 9)
    expect(pieceToBody(after(next, invertSteps(steps)))).toEqual(pieceToBody(p))
  })
  it('strands changed by hand stay, on their own side, and are marked; all can be made by the rule again', () => {
    const p = begun()
    const part = fittedPart(p)
    const last = rowsOf(part) - 1
    const own = after(p, typedStrandSteps(p, part, last, [1, 2, 1]))
    expect(strandsOf(own, fittedPart(own)).map((s) => s.edited)).toEqual(
      Array.from({ length: last + 1 }, (_, r) => r === last),
    )
    const rule = ruleOf(part)
    const wider = after(own, ruleSteps(own, fittedPart(own), { ...rule, strands: rule.strands + 2 }))
    const lists = listsOf(fittedPart(wider))
    expect(lists).toHaveLength(last + 3)
    expect(lists.at(-1)).toEqual([1, 2, 1])
    expect(lists[0]).not.toEqual([1, 2, 1])
    const anew = after(wider, ruleSteps(wider, fittedPart(wider), ruleOf(fittedPart(wider)), false))
    expect(strandsOf(anew, fittedPart(anew)).some((s) => s.edited)).toBe(false)
  })
  it('strands that were a repeat taken twice stay as many when one is typed, and become what a rule says', () => {
    const p = begun()
    const count = rowsOf(fittedPart(p))
    const steps = [setStep(p, ['parts', fittedPart(p).id, 'times'], 2)]
    const twice = after(p, steps)
    const typed = typedStrandSteps(twice, fittedPart(twice), count, [1, 2, 3])
    const lists = listsOf(fittedPart(after(twice, typed)))
    expect(lists).toEqual([...listsOf(fittedPart(p)), [1, 2, 3], ...listsOf(fittedPart(p)).slice(1)])
    expect(pieceToBody(after(after(twice, typed), invertSteps(typed)))).toEqual(pieceToBody(twice))
    expect(rowsOf(fittedPart(after(twice, ruleSteps(twice, fittedPart(twice), ruleOf(fittedPart(p))))))).toBe(count)
  })
  it('a rule always makes as many strands as it says, and its own lists are not edited (property)', () => {
    const base = begun()
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), fc.constantFrom(...EDGES), fc.nat(8), (strands, edge, from) => {
        const rule = strandRuleSchema.parse({
          ...{ strands, edge, end: [4] },
          zones: [{ beads: [1, 2], grow: 'to', from, to: from + 5 }],
        })
        const next = after(base, ruleSteps(base, fittedPart(base), rule))
        const views = strandsOf(next, fittedPart(next))
        expect(views).toHaveLength(strands)
        expect(views.some((s) => s.edited)).toBe(false)
        expect(checkPiece(next)).toEqual([])
      }),
      { numRuns: 40 },
    )
  })
  it('guesses a rule for strands that none made: the same totals at its ends', () => {
    const p = begun()
    const bare = after(p, strandPlanSteps(p, fittedPart(p), { rule: null }))
    const guess = guessedRule(fittedPart(bare))
    const totals = listsOf(fittedPart(bare)).map((l) => l.length)
    const next = after(bare, ruleSteps(bare, fittedPart(bare), guess))
    const now = listsOf(fittedPart(next)).map((l) => l.length)
    expect([now[0], Math.max(...now)]).toEqual([totals[0], Math.max(...totals)])
  })
})

describe('lists that stay alike', () => {
  it('what is laid or put into a strand is laid and put into its mirror (property)', () => {
    const p = begun()
    const part = fittedPart(p)
    const count = rowsOf(part)
    fc.assert(
      fc.property(fc.nat(count - 1), fc.nat(20), fc.constantFrom(1, 2, 3), fc.boolean(), (r, c, number, put) => {
        const row = partRow(part, r)
        const at = c % row.length
        const columns = Math.max(...listsOf(part).map((l) => l.length))
        const steps: Step[] = put
          ? [insertSlotsStep(part, 'repeat', r, at, 2, number)]
          : layingSteps(part, new Map([[r * columns + at, number]]))
        const next = after(p, alikeSteps(p, steps))
        expect(isOwnMirror(fittedPart(next))).toBe(true)
        expect([...partRow(fittedPart(next), r)]).toEqual([...partRow(fittedPart(after(p, steps)), r)])
      }),
    )
  })
  it('repeats after so many, or lets each be its own; a list that differed before follows no more', () => {
    const p = begun()
    const count = rowsOf(fittedPart(p))
    const level = strandRuleSchema.parse({
      strands: count,
      edge: 'straight',
      zones: [{ beads: [1], from: 6 }],
      end: [4],
    })
    const flat = after(p, ruleSteps(p, fittedPart(p), level))
    const repeat = after(flat, strandPlanSteps(flat, fittedPart(flat), { alike: 'repeat', period: 3 }))
    const typed = typedStrandSteps(repeat, fittedPart(repeat), 1, [2, 2, 2])
    const next = after(repeat, alikeSteps(repeat, typed))
    listsOf(fittedPart(next)).forEach((list, r) => expect(list.length === 3).toBe(r % 3 === 1))
    const free = after(flat, strandPlanSteps(flat, fittedPart(flat), { alike: 'free' }))
    const one = after(free, alikeSteps(free, typedStrandSteps(free, fittedPart(free), 1, [2, 2, 2])))
    expect(listsOf(fittedPart(one)).filter((l) => l.length === 3)).toHaveLength(1)
    const apart = after(flat, typedStrandSteps(flat, fittedPart(flat), 0, [3]))
    const again = after(apart, alikeSteps(apart, typedStrandSteps(apart, fittedPart(apart), 0, [3, 3])))
    expect(listsOf(fittedPart(again)).at(-1)).toHaveLength(7)
  })
  it('leaves all else as it is', () => {
    const p = begun()
    const steps = [setStep(p, ['name'], 'Other')]
    expect(alikeSteps(p, steps)).toBe(steps)
  })
})

describe('told once', () => {
  it('a strand as an earlier one says so, and each list has one card', () => {
    const p = begun()
    const part = fittedPart(p)
    const last = rowsOf(part) - 1
    expect(sameAsEarlier(part, last)).toBe(0)
    expect(sameAsEarlier(part, 0)).toBeNull()
    expect(asWords(rowWords(part, last))).toBe('as strand 1, from the other side')
    expect(asWords(rowWords(part, 0))).toBe('')
    const cards = strandCards(p, part)
    expect(cards).toHaveLength(Math.ceil(rowsOf(part) / 2))
    expect(cards.flatMap((c) => c.strands).sort((a, b) => a - b)).toEqual(
      Array.from({ length: last + 1 }, (_, r) => r + 1),
    )
    const lines = strandListsCsv(p, part).trim().split(/\r?\n/)
    const sum = lines.slice(1).reduce((all, line) => all + Number(line.split(',')[7]), 0)
    expect(sum).toBe(listsOf(part).reduce((all, l) => all + l.length, 0))
  })
})

describe('choices for what hangs', () => {
  it('bring it nearer, each as it says, and as it is among them', () => {
    for (const bodyMm of [52, 66]) {
      const p = after(begun(), [setStep(begun(), ['fit', 'bodyMm'], bodyMm)])
      const choices = choicesFor(p)
      expect(choices.filter((c) => c.current)).toHaveLength(1)
      const best = choices[0]!
      expect(best.current).toBe(false)
      for (const choice of choices.filter((c) => !c.current)) {
        const next = after(p, choiceSteps(p, choice))
        expect(fitOf(next).differenceMm).toBeCloseTo(choice.fit.differenceMm, 6)
        expect(totalOf(tallyPiece(next))).toBe(choice.beads)
        expect(Math.abs(choice.fit.differenceMm)).toBeLessThan(Math.abs(fitOf(p).differenceMm))
      }
      const ways = new Set(choices.map((c) => c.way))
      expect(ways).toContain('zone')
      if (bodyMm === 52) expect(ways).toContain('rows')
    }
  })
})

describe('pairs', () => {
  const uneven = (): Piece => {
    const p = begun()
    return after(p, typedStrandSteps(p, fittedPart(p), 0, [1, 2, 3]))
  }
  it('alike from both sides are alike; another is mirrored by making it from its last strand', () => {
    expect(pairWords(begun())).toContain('both are alike')
    expect(secondDiffers(begun())).toBe(false)
    const p = uneven()
    expect(pairWords(p)).toContain('mirror')
    expect(secondDiffers(p)).toBe(true)
    const copies = after(p, [setStep(p, ['fit', 'pair'], 'copy')])
    expect([secondDiffers(copies), pairWords(copies)]).toEqual([false, 'Make two alike.'])
    const part = fittedPart(p)
    expect([1, 2, 3, 4].map((copy) => isTurnedCopy(p, part, copy))).toEqual([false, true, false, true])
  })
  it('the bench makes the second from the last strand to the first, all beads once', () => {
    const p = uneven()
    const agenda = agendaOf(p, { copies: 2, copyOrder: 'in turn' })
    const tasks = Array.from({ length: agenda.count }, (_, k) => taskAt(agenda, k)!).filter(
      (t) => t.part.id === 'strands',
    )
    const count = rowsOf(fittedPart(p))
    expect(tasks.map((t) => t.row)).toEqual([
      ...Array.from({ length: count }, (_, r) => r),
      ...Array.from({ length: count }, (_, r) => count - 1 - r),
    ])
    expect(agenda.beads).toBe(2 * totalOf(tallyPiece(p)))
  })
  it('side by side each strand of the first stands beside its mirror in the second', () => {
    const p = uneven()
    const agenda = agendaOf(p, { copies: 2, copyOrder: 'side by side' })
    const all = Array.from({ length: agenda.count }, (_, k) => taskAt(agenda, k)!)
    const tasks = all.filter((t) => t.part.id === 'strands')
    const count = rowsOf(fittedPart(p))
    expect(tasks.map((t) => [t.copy, t.row])).toEqual(
      Array.from({ length: count }, (_, r) => [
        [1, r],
        [2, count - 1 - r],
      ]).flat(),
    )
    // Beads before each task are those of all tasks before it; its key leads back to it.
    let beads = 0
    for (const task of all) {
      expect(beadsAt(agenda, { index: task.index, bite: 0 })).toBe(beads)
      expect(placeOf(agenda, { task: task.key, bite: 0 }).index).toBe(task.index)
      beads += task.words?.beads ?? 0
    }
    expect(beads).toBe(agenda.beads)
    // In the middle of the third round: strands 1 to 3 of the first, and the last two of the second.
    const third = tasks.find((t) => t.copy === 2 && t.row === count - 3)!
    expect(placesDoneIn(agenda, fittedPart(p), third.index)).toEqual([0, 1, 2, count - 2, count - 1])
    expect([third.made!(count - 2), third.made!(count - 3), third.made!(0)]).toEqual([true, false, false])
  })
})

describe('a strand that hangs otherwise', () => {
  it('is kept in the plan until it hangs as the rest again', () => {
    const p = begun()
    const part = fittedPart(p)
    const swag = after(p, ownStrandSteps(p, part, 2, { at: 0, to: 6, turning: null }))
    expect(strandsOf(swag, fittedPart(swag))[2]).toMatchObject({ at: 0, to: 6 })
    const back = after(swag, ownStrandSteps(swag, fittedPart(swag), 2, { at: null, to: null, turning: null }))
    expect(fittedPart(back).plan).toEqual(part.plan)
  })
})

describe('what a part hangs on', () => {
  it('is found at every side: the outer beads of staggered rows, and those of a slope', () => {
    const p = begun('gable')
    const gable = p.parts[0]!
    const base = placesAlong(gable, 'end')
    expect(base.length).toBe(rowsOf(fittedPart(p)))
    // From left to right as it is seen, a bead’s width apart.
    base.slice(1).forEach((place, k) => expect(base[k]!.x - place.x).toBeCloseTo(2.1, 6))
    const tip = placesAlong(gable, 'start')
    expect(tip[0]!.y).toBeLessThanOrEqual(0)
    expect(Math.max(...tip.map((q) => q.y))).toBeCloseTo(0, 6)
    expect(placesAlong(gable, 'left')).toHaveLength(rowsOf(gable))
    expect(placesAlong(gable, 'right').every((q) => q.bead?.id === 'round-11')).toBe(true)
  })
  it('goes with the settings of a finding, which has no beads to change', () => {
    const p = begun('holes')
    const bar = p.parts[0]!
    const steps = settingSteps(p, bar, { ...bar.settings, holes: 5 }, 1)
    expect(steps).toHaveLength(1)
    const next = after(p, steps)
    expect(placesAlong(next.parts[0]!, 'end')).toHaveLength(5)
  })
  it('is the same value as long as its places are, and goes with the joint', () => {
    const p = begun()
    const part = fittedPart(p)
    const top = p.parts[0]!
    const coloured = after(p, layingSteps(top, new Map([[0, 3]])))
    expect(fittedPart(coloured).held).toBe(part.held)
    const free = after(p, [setStep(p, ['parts', part.id, 'on'], null)])
    expect(fittedPart(free).held).toBeUndefined()
    expect(hung(free)).toBe(free)
    const { held: _, ...bare } = part
    const ends = sized(piece({ tray: [bead(1)], parts: [{ ...bare, on: null, repeat: raggedFrom([[1]]) }] }))
    expect(hung(ends)).toBe(ends)
  })
})
