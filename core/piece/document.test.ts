import { keyOf } from '../grid/key'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, anyPieceOf, bead, part, piece, rows } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { requireTechnique } from '../technique/registry'
import { good, valueOf, type Problem, type Result } from '../problem'
import { pieceFromBody, pieceToBody } from './codec'
import {
  insertColumnsStep,
  insertRowsStep,
  layingSteps,
  removeColumnsStep,
  removeRowsStep,
  setStep,
  swapSteps,
} from './edit'
import { followBox, followed, followPlace } from './follow'
import {
  columnsOf,
  fittedPart,
  isInside,
  locateRow,
  numberAt,
  partRow,
  rowsOf,
  SECTIONS,
  sectionStart,
  storedCells,
  voidsOf,
  wholePart,
  withPart,
  type Part,
} from './piece'
import { LIMITS, type PieceBody } from './schema'
import { applyStep, applySteps, type Step } from './step'
import { moveBeadSteps, sameLook } from './tray'

const codes = (result: Result<unknown>): [string, string][] =>
  result.ok ? [] : result.problems.map((p: Problem) => [p.code, p.at])
const settings = requireTechnique('loom').settings.parse({}) as Part['settings']
const band = (over: Partial<Part> = {}) => part({ technique: 'loom', settings, ...over })

/** The rows of a part written out, by hand: the sections in order, the repeat as often as it is worked. */
const writtenOut = ({ start, repeat, end, times }: Part): number[][] => {
  const lines = (name: 'start' | 'repeat' | 'end') => {
    const cells = { start, repeat, end }[name]
    const flat = cells.blocks.flatMap((block) => [...block])
    return Array.from({ length: cells.rows }, (_, r) => flat.slice(r * cells.columns, (r + 1) * cells.columns))
  }
  return [...lines('start'), ...Array.from({ length: times }, () => lines('repeat')).flat(), ...lines('end')]
}

describe('a part', () => {
  it('is start, repeat as often as it is worked, and end: row by row, cell by cell and whole', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const one = p.parts[0]!
        const lines = writtenOut(one)
        const columns = columnsOf(one)
        expect(rowsOf(one)).toBe(lines.length)
        expect(storedCells(one)).toBe(columns * (one.start.rows + one.repeat.rows + one.end.rows))
        const voids = new Set(voidsOf(one))
        const flat = [...wholePart(one)]
        for (const [r, line] of lines.entries()) {
          expect([...partRow(one, r)]).toEqual(line)
          const { section, row, copy } = locateRow(one, r)
          expect(sectionStart(one, section, copy) + row).toBe(r)
          expect(row).toBeLessThan(one[section].rows)
          for (const [c, number] of line.entries()) {
            const there = !voids.has(r * columns + c)
            expect(isInside(one, { c, r })).toBe(there)
            expect([numberAt(one, c, r), flat[r * columns + c]]).toEqual(there ? [number, number] : [0, 0])
          }
        }
        for (const [c, r] of [
          [-1, 0],
          [columns, 0],
          [0, -1],
          [0, lines.length],
        ] as const)
          expect([isInside(one, { c, r }), numberAt(one, c, r)]).toEqual([false, 0])
      }),
    )
  })
  it('that fits the piece is the one that is named, else the first', () => {
    const [a, b] = [band(), band({ id: 'tail' })]
    const p = piece({ parts: [a, b] })
    expect(fittedPart(p)).toBe(a)
    expect(fittedPart({ ...p, fit: { ...p.fit, part: 'tail' } })).toBe(b)
    expect(fittedPart({ ...p, fit: { ...p.fit, part: 'gone' } })).toBe(a)
    const other = { ...b, name: 'Other' }
    expect(withPart(p, other).parts).toEqual([a, other])
  })
})

describe('a document from outside', () => {
  const body = (change: (b: PieceBody) => void, p = piece({ parts: [band(), band({ id: 'tail' })] })) => {
    const copy = structuredClone(pieceToBody(p))
    change(copy)
    return codes(pieceFromBody(copy))
  }
  it('is taken as it was given', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        expect(valueOf(pieceFromBody(pieceToBody(p)))).toEqual(p)
      }),
    )
    expect(body(() => {})).toEqual([])
  })
  it('has each number, letter and part once', () => {
    expect(body((b) => (b.tray[1]!.number = 1))).toContainEqual(['twice', 'tray number'])
    expect(body((b) => (b.tray[1]!.letter = 'A'))).toEqual([['twice', 'letter']])
    expect(body((b) => (b.parts[1]!.id = 'band'))).toEqual([['twice', 'part id']])
  })
  it('has rows of pairs that come to its columns, each fault named at its row', () => {
    expect(
      body((b) => {
        b.parts[0]!.repeat[1] = [4]
        b.parts[1]!.end[0] = [2, 1, 1, 2]
      }),
    ).toEqual([
      ['row-odd', 'band/repeat/1'],
      ['row-length', 'tail/end/0'],
    ])
    expect(body((b) => (b.parts[0]!.start[0] = [2, 1, 3, 2]))).toEqual([['row-length', 'band/start/0']])
  })
  it('names at most a dozen faults', () => {
    const many = body((b) => (b.parts[0]!.start = Array.from({ length: 30 }, () => [3, 1])))
    expect(many.length).toBe(12)
  })
  it('uses no bead that is not on its tray', () => {
    expect(body((b) => (b.parts[1]!.end[0] = [3, 1, 1, 9]))).toEqual([['stray-number', 'tray']])
    expect(body((b) => (b.parts[1]!.end[0] = [3, 1, 1, 0]))).toEqual([])
  })
  it('is no larger than can be worked, nor than can be kept, to the bead', () => {
    const wide = (rowsOfIt: number, times: number, over: Partial<Part> = {}) =>
      codes(
        pieceFromBody(
          pieceToBody(
            piece({
              parts: [
                band({
                  start: emptyCells(400, 0, 1),
                  repeat: emptyCells(400, rowsOfIt, 1),
                  end: emptyCells(400, 0, 1),
                  times,
                  ...over,
                }),
              ],
            }),
          ),
        ),
      )
    const fits = LIMITS.cells / 400 / 100
    expect(wide(100, fits)).toEqual([])
    expect(wide(100, fits + 1).map(([code]) => code)).toContain('cells-many')
    expect(wide(100, fits, { end: emptyCells(400, 1, 1) }).map(([code]) => code)).toContain('cells-many')
    const two = piece({
      parts: ['a', 'b'].map((id) =>
        band({
          id,
          start: emptyCells(400, 0, 1),
          repeat: emptyCells(400, 100, 1),
          end: emptyCells(400, 0, 1),
          times: fits / 2 + 1,
        }),
      ),
    })
    expect(codes(pieceFromBody(pieceToBody(two)))).toEqual([['cells-many', 'parts']])
    // Not worked at all, and yet kept.
    const section = emptyCells(400, LIMITS.rows, 1)
    expect(LIMITS.rows * 400).toBeGreaterThan(LIMITS.cells)
    expect(wide(1, 0, { repeat: section }).map(([code]) => code)).toContain('cells-many')
  })
  it('knows its stitches and their counts', () => {
    expect(body((b) => (b.parts[0]!.technique = 'knitting' as never)).length).toBeGreaterThan(0)
    const odd = part({ start: rows('AAA'), repeat: rows('AAA'), end: rows('AAA') })
    expect(body((b) => (b.parts[0] = pieceToBody(piece({ parts: [odd] })).parts[0]!)).length).toBe(1)
  })
})

describe('edits as steps', () => {
  it('lay beads where they say, in every copy of the repeat, and nowhere else', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.array(fc.tuple(fc.nat(), fc.integer({ min: 0, max: 3 })), { maxLength: 6 }),
        (p, lay) => {
          const one = p.parts[0]!
          const cells = columnsOf(one) * rowsOf(one)
          if (cells === 0) return
          const laying = new Map(lay.map(([key, number]) => [key % cells, number]))
          const next = valueOf(applySteps(p, layingSteps(one, laying))).parts[0]!
          const stored = (key: number) => {
            const { section, row } = locateRow(one, Math.floor(key / columnsOf(one)))
            return `${section} ${row} ${key % columnsOf(one)}`
          }
          const voids = new Set(voidsOf(one))
          const wanted = new Map([...laying].filter(([k]) => !voids.has(k)).map(([k, n]) => [stored(k), n]))
          const [before, after] = [writtenOut(one).flat(), writtenOut(next).flat()]
          for (let key = 0; key < cells; key++) expect(after[key]).toBe(wanted.get(stored(key)) ?? before[key])
          for (const step of layingSteps(one, laying))
            for (const [k, patch] of step.patches.entries()) {
              const last = step.patches[k - 1]
              // Never two patches where one would do.
              if (last) expect(last[0] + last[1] < patch[0] || last[2] !== patch[2] || last[3] !== patch[3]).toBe(true)
            }
        },
      ),
    )
    const one = band()
    expect(
      layingSteps(
        one,
        new Map([
          [-1, 2],
          [keyOf(4, 0, rowsOf(one)), 2],
        ]),
      ),
    ).toEqual([])
    expect(keyOf(4, 3, 2)).toBe(11)
  })
  it('swap one bead for another everywhere, in as few patches as there are runs', () => {
    fc.assert(
      fc.property(anyPiece, fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }), (p, from, to) => {
        const one = p.parts[0]!
        const steps = swapSteps(one, from, to)
        const next = valueOf(applySteps(p, steps)).parts[0]!
        for (const name of SECTIONS) {
          const [before, after] = [one, next].map((q) => q[name].blocks.flatMap((b) => [...b]))
          expect(after).toEqual(before!.map((n) => (n === from ? to : n)))
          const runs = before!.filter((n, k) => n === from && before![k - 1] !== from).length
          const patches = steps.find((s) => s.section === name)?.patches.length ?? 0
          expect(patches).toBe(from === to ? 0 : runs)
        }
      }),
    )
  })
  it('that put rows or columns in are taken back by those that take them out', () => {
    fc.assert(
      fc.property(
        anyPieceOf(['loom', 'square', 'peyote-odd']),
        fc.nat(),
        fc.integer({ min: 1, max: 3 }),
        (p, at, n) => {
          const one = p.parts[0]!
          const section = SECTIONS[at % 3]!
          const put = insertRowsStep(one, section, at % (one[section].rows + 1), n, 2)
          const more = applyStep(p, put)
          if (more.ok) {
            const there = more.value.parts[0]!
            expect(there[section].rows).toBe(one[section].rows + n)
            expect(applyStep(more.value, removeRowsStep(there, section, put.at, n))).toEqual(good(p))
          }
          const wide = applyStep(p, insertColumnsStep(one, at % (columnsOf(one) + 1), 2 * n, 3))
          if (wide.ok) {
            const there = wide.value.parts[0]!
            expect(columnsOf(there)).toBe(columnsOf(one) + 2 * n)
            expect(applyStep(wide.value, removeColumnsStep(there, at % (columnsOf(one) + 1), 2 * n))).toEqual(good(p))
          }
        },
      ),
    )
  })
  it('set a field from what it was, found by number and id', () => {
    const p = piece({ parts: [band(), band({ id: 'tail', times: 9 })] })
    expect(setStep(p, ['tray', 2, 'name'], 'X')).toMatchObject({ before: p.tray[1]!.name })
    expect(setStep(p, ['parts', 'tail', 'times'], 4)).toMatchObject({ before: 9, after: 4 })
    expect(setStep(p, ['notes', 'none', 'deeper'], 'x').before).toBeNull()
  })
})

describe('steps that do not fit', () => {
  const p = piece({ parts: [band(), band({ id: 'tail' })] })
  const refused = (...steps: Step[]) => codes(applySteps(p, steps)).map(([code]) => code)
  const whole = [1, 2, 3].map((number) => bead(number))
  it.each<[string, Step, string]>([
    [
      'cells that hold something else',
      { type: 'cells', part: 'band', section: 'start', patches: [[0, 1, 2, 3]] },
      'step-misfit',
    ],
    [
      'cells beyond the section',
      { type: 'cells', part: 'band', section: 'start', patches: [[3, 2, 1, 2]] },
      'step-misfit',
    ],
    [
      'patches that overlap',
      {
        type: 'cells',
        part: 'band',
        section: 'start',
        patches: [
          [0, 2, 1, 2],
          [1, 1, 1, 3],
        ],
      },
      'step-misfit',
    ],
    ['a part that is not there', { type: 'cells', part: 'none', section: 'start', patches: [] }, 'step-misfit'],
    ['rows after the end', insertRowsStep(band(), 'start', 2, 1, 1), 'step-misfit'],
    ['rows whose cells are too few', { ...insertRowsStep(band(), 'start', 0, 2, 1), cells: [7, 1] }, 'step-misfit'],
    ['rows taken out that are others', { ...removeRowsStep(band(), 'repeat', 0, 1), cells: [4, 3] }, 'step-misfit'],
    [
      'rows taken out beyond the end',
      { ...removeRowsStep(band(), 'repeat', 1, 1), count: 2, cells: [8, 1] },
      'step-misfit',
    ],
    ['columns after the last', insertColumnsStep(band(), 5, 1, 1), 'step-misfit'],
    ['all columns taken out', removeColumnsStep(band(), 0, 4), 'step-misfit'],
    ['a bead put on the tray too far on', { type: 'tray', do: 'insert', at: 4, bead: bead(4) }, 'step-misfit'],
    ['another bead taken off the tray', { type: 'tray', do: 'remove', at: 0, bead: whole[1]! }, 'step-misfit'],
    ['a bead taken off that is used', { type: 'tray', do: 'remove', at: 0, bead: whole[0]! }, 'bead-used'],
    [
      'a bead laid that is not on the tray',
      { type: 'cells', part: 'band', section: 'start', patches: [[0, 1, 1, 9]] },
      'stray-number',
    ],
    ['rows of a bead that is not on the tray', insertRowsStep(band(), 'start', 0, 1, 9), 'stray-number'],
    ['columns of a bead that is not on the tray', insertColumnsStep(band(), 0, 1, 9), 'stray-number'],
    ['a field set from something else', { type: 'set', path: ['name'], before: 'Other', after: 'X' }, 'step-misfit'],
    ['a field that is not there', { type: 'set', path: ['colour'], before: null, after: 'X' }, 'step-misfit'],
    [
      'cells of a part set whole',
      { type: 'set', path: ['parts', 'band', 'start'], before: null, after: 'X' },
      'step-misfit',
    ],
    ['the number of a bead', setStep(p, ['tray', 1, 'number'], 7), 'step-misfit'],
    ['the id of a part', setStep(p, ['parts', 'band', 'id'], 'other'), 'step-misfit'],
    ['the whole tray', { type: 'set', path: ['tray'], before: null, after: [] as never }, 'step-misfit'],
  ])('are refused: %s', (_, step, code) => {
    expect(refused(step)).toEqual([code])
  })
  it('are refused whole: what came before them has not happened either', () => {
    expect(refused(setStep(p, ['name'], 'X'), insertRowsStep(band(), 'start', 9, 1, 1))).toEqual(['step-misfit'])
    expect(applySteps(p, [setStep(p, ['name'], '')]).ok).toBe(false)
    expect(refused(setStep(p, ['parts', 'band', 'times'], -1)).length).toBe(1)
  })
  it('a bead may come on the tray, be laid, taken up and go off it again, all at once', () => {
    const more = bead(4)
    const laid = (before: number, after: number): Step => ({
      type: 'cells',
      part: 'band',
      section: 'start',
      patches: [[0, 1, before, after]],
    })
    const at = p.tray.length
    const [on, off] = (['insert', 'remove'] as const).map((way): Step => ({ type: 'tray', do: way, at, bead: more }))
    expect(valueOf(applySteps(p, [on!, laid(1, 4), laid(4, 1), off!]))).toEqual(p)
    expect(refused(on!, laid(1, 4), off!)).toEqual(['stray-number'])
  })
  it('the last part stays, and a part is taken out only as it is', () => {
    const value = pieceToBody(p).parts[1]!
    const out: Step = { type: 'part', do: 'remove', at: 1, value }
    const one = valueOf(applySteps(p, [out]))
    expect(one.parts.map((q) => q.id)).toEqual(['band'])
    expect(codes(applySteps(one, [{ ...out, at: 0, value: pieceToBody(one).parts[0]! }]))).toEqual([
      ['step-misfit', 'parts'],
    ])
    expect(refused({ ...out, value: { ...value, times: 8 } })).toEqual(['step-misfit'])
    expect(refused({ ...out, do: 'insert', at: 4, value: { ...value, id: 'third' } })).toEqual(['step-misfit'])
    expect(refused({ ...out, do: 'insert', at: 2 })).toEqual(['twice'])
    expect(valueOf(applySteps(one, [{ ...out, do: 'insert' }]))).toEqual(p)
  })
})

describe('what refers to rows', () => {
  const one = band({ start: rows('AAAA'), repeat: rows('AAAA', 'BBBB', 'CCCC'), end: rows('AAAA'), times: 2 })
  const p = piece({ parts: [one] })
  it('beyond the part stays where it is', () => {
    const step = insertRowsStep(one, 'start', 0, 2, 1)
    const after = valueOf(applyStep(p, step)).parts[0]!
    expect([-1, 0, 7, 8].map((r) => followPlace(one, after, step, { c: 0, r })!.r)).toEqual([-1, 2, 9, 8])
  })
  it('a box keeps its corners, wherever it lies', () => {
    const step = insertColumnsStep(one, 3, 2, 1)
    const after = valueOf(applyStep(p, step)).parts[0]!
    expect(followBox(one, after, step, { c: 2, r: 1, columns: 2, rows: 3 })).toEqual({
      c: 2,
      r: 1,
      columns: 4,
      rows: 3,
    })
    expect(followBox(one, after, step, { c: 3, r: 1, columns: 1, rows: 1 })).toEqual({
      c: 5,
      r: 1,
      columns: 1,
      rows: 1,
    })
  })
  it('is lost with its part, with a step that does not apply, and for good', () => {
    const gone: Step = {
      type: 'part',
      do: 'remove',
      at: 1,
      value: pieceToBody(piece({ parts: [band({ id: 'x' })] })).parts[0]!,
    }
    const two = piece({ parts: [one, band({ id: 'x' })] })
    const apply = (q: typeof p, step: Step) => {
      const next = applyStep(q, step)
      return next.ok ? next.value : null
    }
    const steps = (list: Step[], id: string, follow = followPlace) =>
      followed(two, id, list, apply, { c: 0, r: 2 }, follow)
    expect(steps([gone], 'band')).toEqual({ c: 0, r: 2 })
    expect(steps([gone], 'x')).toBeNull()
    expect(steps([insertRowsStep(one, 'start', 9, 1, 1)], 'band')).toBeNull()
    const out = removeRowsStep(one, 'repeat', 1, 1)
    const back = insertRowsStep(one, 'repeat', 1, 1, 2)
    expect(steps([out, back], 'band')).toBeNull()
  })
})

describe('the tray', () => {
  it('is not moved where there is nothing to move', () => {
    const p = piece()
    expect([moveBeadSteps(p, 1, 1), moveBeadSteps(p, 9, 0), moveBeadSteps(p, 9, 9)]).toEqual([[], [], []])
    expect(moveBeadSteps(p, 0, 2)).toHaveLength(2)
  })
  it('has beads that look alike only if size, colour and finish are the same', () => {
    const a = bead(1)
    expect(sameLook(a, { ...a, name: 'Other' })).toBe(true)
    for (const over of [{ colour: '#000001' }, { finish: 'lustre' as const }, { spec: 'round-8' }])
      expect(sameLook({ ...a, finish: 'matte' }, { ...a, finish: 'matte', ...over })).toBe(false)
  })
})
