import { describe, expect, it } from 'vitest'
import { part, piece } from '../../tests/fixture/piece'
import { linesOf, raggedFrom } from '../grid/lines'
import { valueOf } from '../problem'
import { insertLinesStep, insertSlotsStep, removeLinesStep, removeSlotsStep } from './edit'
import { mapPosition, rebaseSteps } from './rebase'
import { applyStep, invertSteps, type CellsStep, type Step } from './step'

/** A part of lines whose technique nobody asks: steps are carried over each other by what is kept alone. */
const strands = part({
  id: 'strands',
  start: raggedFrom([[1, 1]]),
  repeat: raggedFrom([[1, 2, 3], [1, 1, 2, 2, 3], [], [3, 3]]),
  end: raggedFrom([]),
  times: 2,
})
const base = piece({ parts: [strands] })

const cells = (patches: CellsStep['patches']): CellsStep => ({
  type: 'cells',
  part: 'strands',
  section: 'repeat',
  patches,
})
const linesIn = (at: number, count = 1) => insertLinesStep(strands, 'repeat', at, count, 1)
const linesOut = (at: number, count = 1) => removeLinesStep(strands, 'repeat', at, count)
const slotsIn = (line: number, at: number, count = 1) => insertSlotsStep(strands, 'repeat', line, at, count, 2)
const slotsOut = (line: number, at: number, count = 1) => removeSlotsStep(strands, 'repeat', line, at, count)

function behind(mine: Step, theirs: Step, last = true): Step | null | 'clash' {
  const carried = rebaseSteps([mine], [theirs], base, last)
  if (!carried.ok) {
    expect(carried.problems[0]!.code).toBe('edits-clash')
    return 'clash'
  }
  const after = valueOf(applyStep(base, theirs))
  for (const step of carried.value) valueOf(applyStep(after, step))
  return carried.value[0] ?? null
}
const after = (...steps: Step[]) => steps.reduce((p, step) => valueOf(applyStep(p, step)), base).parts[0]!.repeat
const written = (...steps: Step[]) => linesOf(after(...steps)).map((line) => [...line].join(''))

describe('steps of lines', () => {
  it('put lines in as long as those beside them, take them out again, and say so in their inverse', () => {
    expect(written(linesIn(2, 2))).toEqual(['123', '11223', '11111', '11111', '', '33'])
    expect(written(linesIn(0))).toEqual(['111', '123', '11223', '', '33'])
    expect(written(linesOut(1, 2))).toEqual(['123', '33'])
    for (const step of [linesIn(2, 2), linesOut(1, 2), slotsIn(1, 5, 2), slotsOut(1, 0, 3)])
      expect(written(step, ...invertSteps([step]))).toEqual(['123', '11223', '', '33'])
  })
  it('make a line longer and shorter', () => {
    expect(written(slotsIn(1, 2, 2))).toEqual(['123', '1122223', '', '33'])
    expect(written(slotsIn(2, 0))).toEqual(['123', '11223', '2', '33'])
    expect(written(slotsOut(1, 3, 2))).toEqual(['123', '112', '', '33'])
  })
  it('do not fit where lines or places are others', () => {
    const misfits: Step[] = [
      linesIn(5),
      { ...linesOut(0), lines: [[1, 1, 1, 2, 1, 2]] } as Step,
      {
        ...linesOut(3),
        lines: [
          [2, 3],
          [1, 1],
        ],
      } as Step,
      { ...slotsIn(0, 3), at: 4 },
      { ...slotsIn(0, 3), line: 4 },
      { ...slotsOut(0, 0), cells: [1, 3] },
      { ...slotsOut(0, 2), cells: [2, 3] },
    ]
    for (const step of misfits) {
      const next = applyStep(base, step)
      expect(next.ok ? '' : next.problems[0]!.code).toBe('step-misfit')
    }
    const grid = piece()
    for (const step of [linesIn(0), slotsIn(0, 0)]) expect(applyStep(grid, { ...step, part: 'band' }).ok).toBe(false)
    const rows: Step = {
      type: 'rows',
      do: 'insert',
      part: 'strands',
      section: 'repeat',
      at: 0,
      count: 1,
      cells: [5, 1],
    }
    expect(applyStep(base, rows).ok).toBe(false)
  })
  it('map places along', () => {
    const place = { part: 'strands', section: 'repeat', c: 3, r: 1 } as const
    expect(mapPosition(place, linesIn(1, 2))).toEqual({ ...place, r: 3 })
    expect(mapPosition(place, linesOut(0))).toEqual({ ...place, r: 0 })
    expect(mapPosition(place, linesOut(1))).toBeNull()
    expect(mapPosition(place, slotsIn(1, 3, 2))).toEqual({ ...place, c: 5 })
    expect(mapPosition(place, slotsOut(1, 0, 2))).toEqual({ ...place, c: 1 })
    expect(mapPosition(place, slotsOut(1, 2, 2))).toBeNull()
    expect(mapPosition(place, slotsIn(0, 0))).toEqual(place)
    expect(mapPosition({ ...place, section: 'start' }, linesOut(1))).toEqual({ ...place, section: 'start' })
  })
})

describe('edits of lines made apart', () => {
  // Place 2 of line 1: the sixth that is kept.
  const bead = cells([[5, 1, 2, 3]])
  it('beads go where their line went, and where their place in it went', () => {
    expect(behind(bead, linesIn(0))).toEqual(cells([[8, 1, 2, 3]]))
    expect(behind(bead, linesOut(0))).toEqual(cells([[2, 1, 2, 3]]))
    expect(behind(bead, slotsIn(0, 1, 4))).toEqual(cells([[9, 1, 2, 3]]))
    expect(behind(bead, slotsIn(1, 2))).toEqual(cells([[6, 1, 2, 3]]))
    expect(behind(bead, slotsIn(1, 3))).toEqual(bead)
    expect(behind(bead, slotsOut(1, 0, 2))).toEqual(cells([[3, 1, 2, 3]]))
    expect(behind(bead, linesOut(3))).toEqual(bead)
  })
  it('a bead whose line or place was taken out is a question, and so is what takes out a bead that was laid', () => {
    for (const out of [linesOut(1), slotsOut(1, 2), slotsOut(1, 1, 3)]) {
      expect(behind(bead, out)).toBe('clash')
      expect(behind(out, bead)).toBe('clash')
    }
    for (const step of [linesOut(0), slotsOut(1, 3), slotsOut(0, 0), linesIn(1), slotsIn(1, 2)])
      expect(behind(step, bead)).toEqual(step)
  })
  it('lines behind lines shift as rows do', () => {
    expect(behind(linesIn(2), linesIn(1, 2))).toMatchObject({ at: 4 })
    expect(behind(linesIn(1), linesIn(1))).toMatchObject({ at: 2 })
    expect(behind(linesIn(1), linesIn(1), false)).toMatchObject({ at: 1 })
    expect(behind(linesOut(3), linesOut(0, 2))).toMatchObject({ at: 1 })
    expect(behind(linesOut(0, 2), linesOut(1))).toBe('clash')
    expect(behind(linesOut(0, 2), linesIn(1))).toBe('clash')
  })
  it('places follow their line; a line with places that someone changed is not taken out unasked', () => {
    expect(behind(slotsIn(1, 2), linesIn(0, 2))).toMatchObject({ line: 3, at: 2 })
    expect(behind(slotsIn(1, 2), linesOut(0))).toMatchObject({ line: 0 })
    expect(behind(slotsIn(1, 2), linesOut(1))).toBe('clash')
    expect(behind(linesOut(1), slotsIn(1, 2))).toBe('clash')
    expect(behind(linesOut(0), slotsIn(1, 2))).toEqual(linesOut(0))
    expect(behind(linesIn(1), slotsIn(1, 2))).toEqual(linesIn(1))
  })
  it('places of one line shift each other, of two lines they do not', () => {
    expect(behind(slotsIn(1, 4), slotsIn(1, 2, 3))).toMatchObject({ at: 7 })
    expect(behind(slotsIn(1, 4), slotsIn(0, 1, 3))).toEqual(slotsIn(1, 4))
    expect(behind(slotsOut(1, 3), slotsOut(1, 0, 2))).toMatchObject({ at: 1 })
    expect(behind(slotsOut(1, 1, 2), slotsOut(1, 2))).toBe('clash')
    const start = insertSlotsStep(strands, 'start', 0, 1, 1, 2)
    expect(behind(start, slotsIn(0, 0))).toEqual(start)
  })
})
