import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ownRecipe } from '../../tests/fixture/own-recipe'
import { readRecipeText } from '../recipe/shorthand'
import { beginPiece } from '../begin/begin'
import { choiceSteps, fitChoices } from '../fit/choices'
import { linesOf } from '../grid/lines'
import { valueOf } from '../problem'
import { partFindings } from '../proof/finding'
import type { Settings } from '../technique/setting'
import { usualClosure } from '../wear/closure'
import { pieceToBody } from './codec'
import { numberAt, rowsOf, lengthOfLine, techniqueOf, type Part, type Piece } from './piece'
import {
  laidSlots,
  SEQUENCE_WAYS,
  sequenceSteps,
  slotSizeSteps,
  type Sequence,
  type SequenceWay,
} from './slot-colours'
import { applySteps, invertSteps } from './step'

const begun = (technique: string, spec: string, settings: Settings = {}, bodyMm = 165): Piece =>
  beginPiece({
    ...{ kind: 'bracelet', name: 'Test', wearer: '', bodyMm, easeMm: 13, widthMm: 9 },
    ...{ closure: usualClosure('toggle'), technique, settings, spec, motif: 'plain', start: 'left' },
  })
const onlyPart = (p: Piece): Part => p.parts[0]!
const withTray = (p: Piece, spec: string, ...numbers: number[]): Piece => ({
  ...p,
  tray: [
    ...p.tray,
    ...numbers.map((number) => ({
      ...p.tray[0]!,
      number,
      letter: `Z${String.fromCharCode(45 + number)}`,
      spec,
      name: `Bead ${number}`,
    })),
  ],
})
const lozenges = withTray(begun('lozenges', 'almond-duo-5-x-2-5-mm'), 'almond-duo-5-x-2-5-mm', 20, 21, 22)
const mixed = withTray(begun('stemmed-flowers', 'round-8', { mix: 'two' }), 'round-8', 20, 21, 22)
const laid = (p: Piece, slot: string, sequence: Sequence): Piece =>
  valueOf(applySteps(p, valueOf(sequenceSteps(p, onlyPart(p), slot, sequence))))

/** Numbers of a slot, line by line, told by walking over the part that stands there. */
function numbersOf(p: Piece, slot: string): number[][] {
  const part = onlyPart(p)
  const { start, motif, end } = techniqueOf(part).picks!(part, 200)
  const edge = techniqueOf(part).picks!(part, 2)
  const [a, z] = [edge.start.length > 0 ? 1 : 0, edge.end.length > 0 ? 1 : 0]
  const out: number[][] = []
  for (let r = 0; r < rowsOf(part); r++) {
    const beads = r < a ? start : z > 0 && r === rowsOf(part) - 1 ? end : motif(r - a)
    const own: number[] = []
    for (let c = 0; c < lengthOfLine(part, r); c++) if (beads[c]?.slot === slot) own.push(numberAt(part, c, r))
    if (own.length > 0) out.push(own)
  }
  return out
}
/** What a sequence lays, said apart from the program: the k-th bead of the n-th line that has any. */
const wanted = (lines: readonly number[][], way: SequenceWay, numbers: readonly number[]): number[][] => {
  let run = 0
  return lines.map((line, n) =>
    line.map((_, k) => {
      const at = way === 'anew' ? k : way === 'shifted' ? n + k : way === 'on' ? run++ : n
      return numbers[at % numbers.length]!
    }),
  )
}

describe('the parts that beads play', () => {
  it('are told with their counts, sizes and the sequence in which they lie', () => {
    expect(laidSlots(lozenges, onlyPart(lozenges)).map(({ called, each, spec }) => [called, each, spec])).toEqual([
      ['link bead', 1, 'round-8'],
      ['loop bead', 7, 'round-11'],
      ['leaf', 6, 'almond-duo-5-x-2-5-mm'],
      ['centre bead', 1, 'faceted-4-mm'],
    ])
    expect(laidSlots(lozenges, onlyPart(lozenges)).every(({ sequence }) => sequence?.numbers.length === 1)).toBe(true)
    const loom = beginPiece({
      ...{ kind: 'bracelet', name: 'Test', wearer: '', bodyMm: 165, easeMm: 13, widthMm: 9, settings: {} },
      ...{ closure: usualClosure('toggle'), technique: 'loom', spec: 'cylinder-11', motif: 'plain', start: 'left' },
    })
    expect(laidSlots(loom, onlyPart(loom))).toEqual([])
  })
  it('are laid in any sequence as a count by hand lays them, and told again as the same; undo takes all back', () => {
    const wish = fc.record({
      of: fc.constantFrom<readonly [Piece, string]>([lozenges, 'leaf'], [mixed, 'petal'], [mixed, 'stem']),
      way: fc.constantFrom(...SEQUENCE_WAYS),
      numbers: fc.array(fc.constantFrom(20, 21, 22), { minLength: 1, maxLength: 4 }),
    })
    fc.assert(
      fc.property(wish, ({ of: [p, slot], way, numbers }) => {
        const steps = valueOf(sequenceSteps(p, onlyPart(p), slot, { way, numbers }))
        const next = valueOf(applySteps(p, steps))
        expect(rowsOf(onlyPart(next))).toBe(rowsOf(onlyPart(p)))
        const lines = numbersOf(next, slot)
        expect(lines).toEqual(wanted(numbersOf(p, slot), way, numbers))
        const others = laidSlots(p, onlyPart(p)).filter((s) => s.slot !== slot)
        for (const other of others) expect(numbersOf(next, other.slot)).toEqual(numbersOf(p, other.slot))
        const told = laidSlots(next, onlyPart(next)).find((s) => s.slot === slot)!.sequence
        expect(told && wanted(lines, told.way, told.numbers)).toEqual(lines)
        expect(partFindings(onlyPart(next), next)).toEqual([])
        expect(pieceToBody(valueOf(applySteps(next, invertSteps(steps))))).toEqual(pieceToBody(p))
        // What lies so already is not laid again.
        expect(valueOf(sequenceSteps(next, onlyPart(next), slot, { way, numbers }))).toEqual([])
      }),
      { numRuns: 60 },
    )
  })
  it('are not laid where the sequence would begin again only after too many motifs', () => {
    const numbers = Array.from({ length: 97 }, (_, k) => 20 + (k % 3))
    const steps = sequenceSteps(lozenges, onlyPart(lozenges), 'leaf', { way: 'shifted', numbers })
    expect(steps.ok ? '' : steps.problems[0]!.says).toContain('97 motifs')
    expect(valueOf(sequenceSteps(lozenges, onlyPart(lozenges), 'leaf', { way: 'on', numbers: [] }))).toEqual([])
  })
  it('end whole by choice: of two fits that come as near, the one whose cycle is not broken off', () => {
    const own = begun('stemmed-flowers', 'round-8', {}, 180)
    const three = laid(withTray(own, 'round-8', 20, 21, 22), 'petal', { way: 'motif', numbers: [20, 21, 22] })
    const part = onlyPart(three)
    const left = part.end.rows - 1
    expect([part.repeat.rows, left]).toEqual([3, (rowsOf(onlyPart(own)) - 2) % 3])
    expect(left).toBeGreaterThan(0)
    const whole = fitChoices(three).filter((c) => c.whole)
    expect(whole.length).toBeGreaterThan(0)
    for (const choice of whole) {
      expect(choice.endRows).toBe(-left)
      const next = onlyPart(valueOf(applySteps(three, choiceSteps(three, choice))))
      expect([next.end.rows, (rowsOf(next) - 2) % 3]).toEqual([1, 0])
      expect(linesOf(next.end).map((line) => [...line])).toEqual([
        linesOf(part.end)
          .map((line) => [...line])
          .at(-1),
      ])
    }
    expect(fitChoices(three).filter((c) => c.current)).toHaveLength(1)
  })
})

describe('what a cycle leaves over', () => {
  it('is told from a last motif that is meant to differ', () => {
    const text = `recipe tails "Tails"
bead bead round-8 "bead" "beads"
carrier thread thread 0.15 "thread"
motif
  pick bead*4
  when m=n-1
    pick bead*2
`
    const plain = ownRecipe(
      valueOf(readRecipeText(text)),
      { motif: [1, 1, 1, 1], end: [1, 1, 1, 1, 1, 1] },
      { times: 9 },
    )
    expect(partFindings(onlyPart(plain))).toEqual([])
    expect(
      fitChoices(plain)
        .filter((c) => c.whole)
        .every((c) => c.endRows === 0),
    ).toBe(true)
    // In three colours in turn over ten motifs one is left over before the last.
    const tray = [
      ...plain.tray,
      ...[20, 21].map((number) => ({ ...plain.tray[0]!, number, letter: `Y${String.fromCharCode(45 + number)}` })),
    ]
    const three = laid({ ...plain, tray }, 'bead', { way: 'motif', numbers: [1, 20, 21] })
    expect(onlyPart(three).repeat.rows * onlyPart(three).times + onlyPart(three).end.rows).toBe(10)
    for (const choice of fitChoices(three).filter((c) => c.whole)) {
      const next = valueOf(applySteps(three, choiceSteps(three, choice)))
      expect(lengthOfLine(onlyPart(next), rowsOf(onlyPart(next)) - 1)).toBe(6)
      expect(partFindings(onlyPart(next))).toEqual([])
    }
  })
})

describe('the size of a part', () => {
  it('is another one for all its beads; what lies elsewhere too gets a fellow of the same colour', () => {
    const alone = laid(lozenges, 'leaf', { way: 'motif', numbers: [20, 21] })
    const domed = 'domed-duo-5-x-2-5-mm'
    const steps = slotSizeSteps(alone, onlyPart(alone), 'leaf', domed)
    const next = valueOf(applySteps(alone, steps))
    expect(laidSlots(next, onlyPart(next)).find((s) => s.slot === 'leaf')).toMatchObject({ spec: domed })
    expect(numbersOf(next, 'leaf')).toEqual(numbersOf(alone, 'leaf'))
    // Nothing of it is laid in the size that it was begun in: it is named by the new one.
    expect([onlyPart(alone).spec, onlyPart(next).spec]).toEqual(['almond-duo-5-x-2-5-mm', domed])
    expect(partFindings(onlyPart(next), next).filter((f) => f.weight === 'stops')).toEqual([])
    // Petals of the same bead as the stem: the stem keeps its size.
    const shared = laid(mixed, 'petal', { way: 'anew', numbers: [mixed.tray[0]!.number] })
    const same = laid(shared, 'stem', { way: 'anew', numbers: [mixed.tray[0]!.number] })
    const larger = slotSizeSteps(same, onlyPart(same), 'petal', 'round-6')
    const grown = valueOf(applySteps(same, larger))
    expect(grown.tray).toHaveLength(same.tray.length + 1)
    expect(grown.tray.at(-1)).toMatchObject({ spec: 'round-6', colour: same.tray[0]!.colour })
    expect(numbersOf(grown, 'stem')).toEqual(numbersOf(same, 'stem'))
    expect(onlyPart(grown).spec).toBe(onlyPart(same).spec)
    expect(
      numbersOf(grown, 'petal')
        .flat()
        .every((n) => n === grown.tray.at(-1)!.number),
    ).toBe(true)
    expect(slotSizeSteps(same, onlyPart(same), 'petal', 'round-8')).toEqual([])
    expect(pieceToBody(valueOf(applySteps(grown, invertSteps(larger))))).toEqual(pieceToBody(same))
  })
})
