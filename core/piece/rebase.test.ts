import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../tests/fixture/piece'
import { cellsFrom, emptyCells } from '../grid/cells'
import { valueOf } from '../problem'
import { requireTechnique } from '../technique/registry'
import { partToFile } from './codec'
import {
  insertColumnsStep,
  insertRowsStep,
  layingSteps,
  removeColumnsStep,
  removeRowsStep,
  setStep,
  swapSteps,
} from './edit'
import type { Part, Piece } from './piece'
import { mapPosition, mapPositions, mergeSteps, rebaseSteps } from './rebase'
import { applySteps, type CellsStep, type Step } from './step'

/** Case by case what becomes of an edit when another came first; the laws of any edits stand in tests/law. */
const settings = requireTechnique('loom').settings.parse({})
const band: Part = part({
  technique: 'loom',
  settings,
  times: 2,
  start: emptyCells(6, 3, 1),
  repeat: cellsFrom(
    6,
    8,
    Array.from({ length: 48 }, (_, k) => 1 + (k % 3)),
  ),
  end: emptyCells(6, 2, 2),
})
const tab: Part = { ...band, id: 'tab', name: 'Tab' }
const base: Piece = piece({ parts: [band, tab], tray: [bead(1), bead(2), bead(3), bead(4)] })

const cells = (patches: CellsStep['patches'], section: CellsStep['section'] = 'start', on = 'band'): CellsStep => ({
  type: 'cells',
  part: on,
  section,
  patches,
})
const rowsIn = (at: number, count = 1, on = band) => insertRowsStep(on, 'repeat', at, count, 1)
const rowsOut = (at: number, count = 1, on = band) => removeRowsStep(on, 'repeat', at, count)
const columnsIn = (at: number, count = 1, on = band) => insertColumnsStep(on, at, count, 1)
const columnsOut = (at: number, count = 1, on = band) => removeColumnsStep(on, at, count)

/** What mine becomes behind theirs; null where the two clash. */
function behind(mine: Step, theirs: Step, last = true): Step[] | null {
  const carried = rebaseSteps([mine], [theirs], base, last)
  if (!carried.ok) {
    expect(carried.problems[0]!.code).toBe('edits-clash')
    return null
  }
  // Whatever it becomes, it applies there.
  valueOf(applySteps(valueOf(applySteps(base, [theirs])), carried.value))
  return carried.value
}
const unchanged = (mine: Step, theirs: Step) => {
  expect(behind(mine, theirs)).toEqual([mine])
}
const clash = (mine: Step, theirs: Step) => {
  expect(behind(mine, theirs)).toBeNull()
}
/** Where an inserted or removed run of rows or columns begins behind theirs. */
const at = (mine: Step, theirs: Step, last = true) => behind(mine, theirs, last)?.map((s) => ('at' in s ? s.at : -1))

describe('beads laid behind beads laid', () => {
  it('elsewhere stay; the same bead to the same colour is done already; to another it is a question', () => {
    unchanged(cells([[0, 2, 1, 2]]), cells([[2, 1, 1, 3]]))
    unchanged(cells([[0, 2, 1, 2]]), cells([[0, 2, 2, 3]], 'end'))
    unchanged(cells([[0, 2, 1, 2]]), cells([[0, 2, 1, 3]], 'start', 'tab'))
    expect(behind(cells([[0, 2, 1, 2]]), cells([[0, 2, 1, 2]]))).toEqual([])
    expect(behind(cells([[0, 4, 1, 2]]), cells([[1, 2, 1, 2]]))).toEqual([
      cells([
        [0, 1, 1, 2],
        [3, 1, 1, 2],
      ]),
    ])
    clash(cells([[0, 2, 1, 2]]), cells([[1, 1, 1, 3]]))
  })
})

describe('beads laid behind rows that came or went', () => {
  // Row 3 of the repeat: numbers 1 2 3 1 2 3.
  const mine = cells(
    [
      [18, 1, 1, 4],
      [20, 1, 3, 4],
    ],
    'repeat',
  )
  it('move down by what was put in before or at their row, and not by what was put in behind it', () => {
    expect(behind(mine, rowsIn(2, 2))).toEqual([
      cells(
        [
          [30, 1, 1, 4],
          [32, 1, 3, 4],
        ],
        'repeat',
      ),
    ])
    expect(behind(mine, rowsIn(3))).toEqual([
      cells(
        [
          [24, 1, 1, 4],
          [26, 1, 3, 4],
        ],
        'repeat',
      ),
    ])
    unchanged(mine, rowsIn(4))
  })
  it('move up by what was taken out before, clash where their row went', () => {
    expect(behind(mine, rowsOut(1, 2))).toEqual([
      cells(
        [
          [6, 1, 1, 4],
          [8, 1, 3, 4],
        ],
        'repeat',
      ),
    ])
    clash(mine, rowsOut(3))
    clash(mine, rowsOut(2, 2))
    unchanged(mine, rowsOut(4))
  })
  it('stay where the rows are of another section or part', () => {
    unchanged(mine, insertRowsStep(band, 'start', 0, 1, 1))
    unchanged(mine, rowsIn(0, 1, tab))
  })
})

describe('beads laid behind columns that came or went', () => {
  // Column 2 of rows 0 and 1 of the start.
  const mine = cells([
    [2, 1, 1, 4],
    [8, 1, 1, 4],
  ])
  it('move along by what was put in before or at their column', () => {
    expect(behind(mine, columnsIn(1, 2))).toEqual([
      cells([
        [4, 1, 1, 4],
        [12, 1, 1, 4],
      ]),
    ])
    expect(behind(mine, columnsIn(2))).toEqual([
      cells([
        [3, 1, 1, 4],
        [10, 1, 1, 4],
      ]),
    ])
    expect(behind(mine, columnsIn(3))).toEqual([
      cells([
        [2, 1, 1, 4],
        [9, 1, 1, 4],
      ]),
    ])
  })
  it('move back by what was taken out, clash where their column went', () => {
    expect(behind(mine, columnsOut(0, 2))).toEqual([
      cells([
        [0, 1, 1, 4],
        [4, 1, 1, 4],
      ]),
    ])
    expect(behind(mine, columnsOut(3))).toEqual([
      cells([
        [2, 1, 1, 4],
        [7, 1, 1, 4],
      ]),
    ])
    clash(mine, columnsOut(2))
    clash(mine, columnsOut(1, 2))
  })
})

describe('rows behind rows', () => {
  it('put in: behind what was put in before them; at the same place the last goes behind', () => {
    expect(at(rowsIn(4), rowsIn(2, 3))).toEqual([7])
    expect(at(rowsIn(2), rowsIn(4, 3))).toEqual([2])
    expect(at(rowsIn(4), rowsIn(4, 3))).toEqual([7])
    expect(at(rowsIn(4), rowsIn(4, 3), false)).toEqual([4])
  })
  it('put in where rows were taken out: before, at and behind them they fit, within them not', () => {
    expect(at(rowsIn(2), rowsOut(2, 3))).toEqual([2])
    expect(at(rowsIn(5), rowsOut(2, 3))).toEqual([2])
    expect(at(rowsIn(7), rowsOut(2, 3))).toEqual([4])
    expect(at(rowsIn(1), rowsOut(2, 3))).toEqual([1])
    clash(rowsIn(3), rowsOut(2, 3))
    clash(rowsIn(4), rowsOut(2, 3))
  })
  it('taken out where rows were put in: beside them they go, around them not', () => {
    expect(at(rowsOut(4, 2), rowsIn(2))).toEqual([5])
    expect(at(rowsOut(4, 2), rowsIn(4))).toEqual([5])
    expect(at(rowsOut(4, 2), rowsIn(6))).toEqual([4])
    clash(rowsOut(4, 2), rowsIn(5))
  })
  it('taken out twice: apart they both go, in common they clash', () => {
    expect(at(rowsOut(4, 2), rowsOut(1, 2))).toEqual([2])
    expect(at(rowsOut(4, 2), rowsOut(6, 1))).toEqual([4])
    expect(at(rowsOut(4, 2), rowsOut(2, 2))).toEqual([2])
    clash(rowsOut(4, 2), rowsOut(5, 2))
    clash(rowsOut(4, 2), rowsOut(3, 2))
    clash(rowsOut(4, 2), rowsOut(4, 2))
  })
  it('stay where the others are of another section or part', () => {
    unchanged(rowsOut(4, 2), insertRowsStep(band, 'start', 0, 1, 1))
    unchanged(rowsIn(4), rowsOut(0, 2, tab))
  })
  it('taken out clash with beads laid in them, and only there', () => {
    clash(rowsOut(3), cells([[18, 1, 1, 4]], 'repeat'))
    clash(rowsOut(3), cells([[23, 1, 3, 4]], 'repeat'))
    unchanged(rowsOut(3), cells([[17, 1, 3, 4]], 'repeat'))
    unchanged(rowsOut(3), cells([[24, 1, 1, 4]], 'repeat'))
    unchanged(rowsOut(3), cells([[0, 12, 1, 4]], 'start'))
    clash(rowsOut(2, 2), cells([[12, 1, 1, 4]], 'repeat'))
    unchanged(rowsIn(3), cells([[18, 1, 1, 4]], 'repeat'))
  })
})

describe('columns behind columns, beads and rows', () => {
  it('move as rows do', () => {
    expect(at(columnsIn(4), columnsIn(2))).toEqual([5])
    expect(at(columnsIn(4), columnsIn(4), false)).toEqual([4])
    expect(at(columnsOut(4), columnsOut(1, 2))).toEqual([2])
    clash(columnsOut(2, 2), columnsOut(3, 1))
    clash(columnsIn(3), columnsOut(2, 2))
  })
  it('taken out clash with beads laid in them, in whichever row', () => {
    clash(columnsOut(2, 2), cells([[8, 1, 1, 4]]))
    clash(columnsOut(2, 2), cells([[9, 1, 1, 4]]))
    expect(behind(columnsOut(2, 2), cells([[7, 1, 1, 4]]))).toHaveLength(1)
    expect(behind(columnsOut(2, 2), cells([[10, 1, 1, 4]]))).toHaveLength(1)
    unchanged(columnsIn(2), cells([[8, 1, 1, 4]]))
  })
  it('and rows at once are for a person', () => {
    clash(columnsIn(2), rowsIn(3))
    clash(rowsOut(3), columnsOut(2))
    unchanged(columnsIn(2), rowsIn(3, 1, tab))
  })
})

describe('fields behind fields', () => {
  const name = (to: string) => setStep(base, ['parts', 'band', 'name'], to)
  it('apart stay; the same done already; one inside the other or to another end is a question', () => {
    unchanged(name('Mine'), setStep(base, ['parts', 'band', 'times'], 4))
    unchanged(name('Mine'), setStep(base, ['parts', 'tab', 'name'], 'Theirs'))
    expect(behind(name('Same'), name('Same'))).toEqual([])
    clash(name('Mine'), name('Theirs'))
    const closure = setStep(base, ['fit', 'closure', 'lengthMm'], 20)
    const whole = setStep(base, ['fit', 'closure'], { ...base.fit.closure, lengthMm: 20 })
    clash(closure, whole)
    clash(whole, closure)
    unchanged(closure, setStep(base, ['fit', 'bodyMm'], 171))
  })
  it('stay beside beads, rows and columns', () => {
    unchanged(name('Mine'), cells([[0, 1, 1, 2]]))
    unchanged(cells([[0, 1, 1, 2]]), name('Theirs'))
    unchanged(rowsIn(2), name('Theirs'))
    unchanged(name('Mine'), columnsOut(1))
  })
})

describe('parts and beads that come and go', () => {
  const put = (where: number): Step => ({
    type: 'part',
    do: 'insert',
    at: where,
    value: partToFile({ ...band, id: 'new', name: 'New' }),
  })
  const off: Step = { type: 'part', do: 'remove', at: 1, value: partToFile(tab) }
  const fresh: Step = { type: 'tray', do: 'insert', at: 4, bead: bead(5) as never }
  const away: Step = { type: 'tray', do: 'remove', at: 3, bead: base.tray[3]! }
  it('a part that goes clashes with what was changed in it, and with nothing else', () => {
    const inTab = [
      cells([[0, 1, 1, 2]], 'start', 'tab'),
      rowsIn(2, 1, tab),
      setStep(base, ['parts', 'tab', 'times'], 5),
    ]
    for (const step of inTab) {
      clash(step, off)
      clash(off, step)
    }
    for (const step of [cells([[0, 1, 1, 2]]), columnsIn(1), setStep(base, ['parts', 'band', 'times'], 5), fresh]) {
      unchanged(step, off)
      unchanged(off, step)
    }
    unchanged(setStep(base, ['name'], 'Mine'), off)
  })
  it('a part that comes clashes only with another that comes or goes', () => {
    clash(put(0), off)
    clash(put(0), put(1))
    for (const step of [cells([[0, 1, 1, 2]]), setStep(base, ['parts', 'tab', 'times'], 5), away]) {
      unchanged(step, put(0))
      unchanged(put(0), step)
    }
  })
  it('a bead that comes disturbs nobody but another that comes or goes', () => {
    clash(fresh, away)
    for (const step of [cells([[0, 1, 1, 2]]), rowsIn(1), setStep(base, ['tray', 2, 'name'], 'Theirs')]) {
      unchanged(step, fresh)
      unchanged(fresh, step)
    }
  })
  it('a bead that goes clashes with what is laid and with a change of itself, not of others or of the piece', () => {
    clash(cells([[0, 1, 1, 2]]), away)
    clash(away, rowsIn(1))
    clash(setStep(base, ['tray', 4, 'name'], 'Mine'), away)
    clash(away, setStep(base, ['tray', 4, 'name'], 'Theirs'))
    unchanged(setStep(base, ['tray', 2, 'name'], 'Mine'), away)
    unchanged(away, setStep(base, ['fit', 'bodyMm'], 171))
    unchanged(setStep(base, ['parts', 'band', 'times'], 4), away)
  })
})

describe('lists over lists', () => {
  it('carry each of mine over all of theirs, as they themselves move over mine', () => {
    const mine = [rowsIn(0), ...layingSteps(valueOf(applySteps(base, [rowsIn(0)])).parts[0]!, new Map([[24, 3]]))]
    const theirs = [rowsIn(5, 2), setStep(base, ['name'], 'Theirs')]
    const carried = valueOf(rebaseSteps(mine, theirs, base))
    const back = valueOf(rebaseSteps(theirs, mine, base, false))
    const one = valueOf(applySteps(valueOf(applySteps(base, theirs)), carried))
    const two = valueOf(applySteps(valueOf(applySteps(base, mine)), back))
    expect(one).toEqual(two)
    expect(one.name).toBe('Theirs')
    expect(back.map((s) => ('at' in s ? s.at : s.type))).toEqual([6, 'set'])
  })
  it('name the part where two clash, and fail where one does not fit what it was made on', () => {
    const clashing = rebaseSteps([cells([[0, 1, 1, 2]])], [cells([[0, 1, 1, 3]])], base)
    expect(clashing.ok ? '' : clashing.problems[0]!.at).toBe('band')
    const head = rebaseSteps([setStep(base, ['name'], 'A')], [setStep(base, ['name'], 'B')], base)
    expect(head.ok ? '' : head.problems[0]!.at).toBe('piece')
    expect(rebaseSteps([cells([[0, 1, 9, 2]])], [setStep(base, ['name'], 'B')], base).ok).toBe(false)
    expect(rebaseSteps([setStep(base, ['name'], 'B')], [cells([[0, 1, 9, 2]])], base).ok).toBe(false)
  })
})

describe('two steps as one', () => {
  it('beads laid twice: the first before, the last after; what came back is nothing', () => {
    const merged = mergeSteps(
      cells([[0, 3, 1, 2]]),
      cells([
        [1, 1, 2, 3],
        [5, 1, 1, 4],
      ]),
    )
    expect(merged).toEqual(
      cells([
        [0, 1, 1, 2],
        [1, 1, 1, 3],
        [2, 1, 1, 2],
        [5, 1, 1, 4],
      ]),
    )
    expect(mergeSteps(cells([[0, 2, 1, 2]]), cells([[0, 2, 2, 1]]))).toEqual(cells([]))
    expect(mergeSteps(cells([[0, 2, 1, 2]]), cells([[0, 1, 3, 1]]))).toBeNull()
    expect(mergeSteps(cells([[0, 1, 1, 2]]), cells([[0, 1, 2, 1]], 'end'))).toBeNull()
    expect(mergeSteps(cells([[0, 1, 1, 2]]), cells([[1, 1, 1, 2]], 'start', 'tab'))).toBeNull()
    // Neighbours that go from the same to the same are one run.
    expect(mergeSteps(cells([[0, 1, 1, 2]]), cells([[1, 1, 1, 2]]))).toEqual(cells([[0, 2, 1, 2]]))
  })
  it('a field set twice; all else is two steps', () => {
    const [a, b] = [setStep(base, ['name'], 'A'), { ...setStep(base, ['name'], 'B'), before: 'A' }]
    expect(mergeSteps(a, b)).toEqual({ ...a, after: 'B' })
    expect(mergeSteps(a, setStep(base, ['notes'], 'B'))).toBeNull()
    expect(mergeSteps(a, cells([[0, 1, 1, 2]]))).toBeNull()
    expect(mergeSteps(cells([[0, 1, 1, 2]]), a)).toBeNull()
    expect(mergeSteps(rowsIn(0), rowsIn(0))).toBeNull()
  })
})

describe('where a cell is after a step', () => {
  const place = { part: 'band', section: 'repeat', c: 2, r: 3 } as const
  it('moves with rows and columns of its own section and part', () => {
    expect(mapPosition(place, rowsIn(3, 2))).toEqual({ ...place, r: 5 })
    expect(mapPosition(place, rowsIn(4))).toEqual(place)
    expect(mapPosition(place, rowsOut(1))).toEqual({ ...place, r: 2 })
    expect(mapPosition(place, rowsOut(2, 2))).toBeNull()
    expect(mapPosition(place, rowsOut(4))).toEqual(place)
    expect(mapPosition(place, columnsIn(2))).toEqual({ ...place, c: 3 })
    expect(mapPosition(place, columnsOut(0, 2))).toEqual({ ...place, c: 0 })
    expect(mapPosition(place, columnsOut(2))).toBeNull()
    expect(mapPosition(place, insertRowsStep(band, 'start', 0, 1, 1))).toEqual(place)
    expect(mapPosition(place, rowsIn(0, 1, tab))).toEqual(place)
    expect(mapPosition(place, columnsIn(0, 1, tab))).toEqual(place)
    expect(mapPosition(place, swapSteps(band, 1, 2)[0]!)).toEqual(place)
  })
  it('is nowhere once its part is gone', () => {
    const gone: Step = { type: 'part', do: 'remove', at: 0, value: partToFile(band) }
    expect(mapPosition(place, gone)).toBeNull()
    expect(mapPosition({ ...place, part: 'tab' }, gone)).not.toBeNull()
    expect(mapPosition(place, { ...gone, do: 'insert' })).toEqual(place)
    expect(mapPositions(place, [rowsIn(0), gone, rowsIn(0)])).toBeNull()
    expect(mapPositions(place, [rowsIn(0), columnsIn(0)])).toEqual({ ...place, r: 4, c: 3 })
  })
})
