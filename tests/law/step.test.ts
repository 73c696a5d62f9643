import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { pieceToBody } from '#core/piece/codec'
import {
  carriedOver,
  EMPTY_HISTORY,
  historyOf,
  recorded,
  takeBack,
  takenBackLabel,
  type History,
} from '#core/piece/history'
import type { Piece } from '#core/piece/piece'
import { mapPosition, mapPositions, mergeSteps, rebaseSteps } from '#core/piece/rebase'
import { applyStep, applySteps, invertSteps, stepSchema, type Step } from '#core/piece/step'
import { countCells, countCellsAfresh } from '#core/tally/tally'
import { isGrid, SECTIONS } from '#core/piece/piece'
import { lineLength, numberAtIndex, numberIn, slotCount } from '#core/grid/lines'
import { insertRowsStep } from '#core/piece/edit'
import { valueOf } from '#core/problem'
import { anyPiece, part, piece } from '../fixture/piece'
import { anyWish, play } from '../fixture/step'

const plain = (piece: Piece): string => JSON.stringify(pieceToBody(piece))
const wishes = fc.array(anyWish, { minLength: 1, maxLength: 8 })

describe('steps', () => {
  it('are made of every kind, both ways, by what makes them here', () => {
    const reached = new Set<string>()
    for (const [piece, list] of fc.sample(fc.tuple(anyPiece, wishes), { numRuns: 3000, seed: 12 }))
      for (const step of play(piece, list).flatMap((p) => p.steps))
        reached.add(
          'do' in step ? `${step.type} ${step.do}` : step.type === 'set' ? `set ${step.path.at(-1)}` : step.type,
        )
    const both = ['rows', 'columns', 'lines', 'slots', 'tray', 'part'].flatMap((type) => [
      `${type} insert`,
      `${type} remove`,
    ])
    expect([...reached].sort()).toEqual(
      ['cells', ...both, 'set bodyMm', 'set name', 'set on', 'set plan', 'set times'].sort(),
    )
  })
  it('applied then inverted are nothing', () => {
    fc.assert(
      fc.property(anyPiece, wishes, (piece, list) => {
        for (const { steps, before, after } of play(piece, list))
          expect(plain(valueOf(applySteps(after, invertSteps(steps))))).toBe(plain(before))
      }),
    )
  })
  it('are the same after a way through JSON and its schema', () => {
    fc.assert(
      fc.property(anyPiece, wishes, (piece, list) => {
        for (const { steps, before, after } of play(piece, list)) {
          const read = steps.map((s) => stepSchema.parse(JSON.parse(JSON.stringify(s))))
          expect(plain(valueOf(applySteps(before, read)))).toBe(plain(after))
        }
      }),
    )
  })
  it('change nothing of the piece that they are applied to', () => {
    fc.assert(
      fc.property(anyPiece, wishes, (piece, list) => {
        const was = plain(piece)
        play(piece, list)
        expect(plain(piece)).toBe(was)
      }),
    )
  })
  it('merge into one that does the same', () => {
    let merged = 0
    fc.assert(
      fc.property(anyPiece, wishes, (piece, list) => {
        const played = play(piece, list)
        for (let i = 1; i < played.length; i++) {
          const [first, second] = [played[i - 1]!, played[i]!]
          if (first.steps.length !== 1 || second.steps.length !== 1) continue
          const one = mergeSteps(first.steps[0]!, second.steps[0]!)
          if (!one) continue
          merged++
          expect(plain(valueOf(applyStep(first.before, one)))).toBe(plain(second.after))
        }
      }),
      // Few edits that follow one another are of a kind.
      { numRuns: 400 },
    )
    expect(merged).toBeGreaterThan(0)
  })
  it('map positions as they move the cells, and mapping composes', () => {
    fc.assert(
      fc.property(anyPiece, wishes, fc.nat(), fc.nat(), (piece, list, x, y) => {
        const part = piece.parts[0]!
        const section = SECTIONS[x % 3]!
        if (part[section].rows === 0) return
        const played = play(piece, list)
        const r = y % part[section].rows
        if (lineLength(part[section], r) === 0) return
        const from = { part: part.id, section, c: x % lineLength(part[section], r), r }
        let one: typeof from | null = from
        for (const { steps, before, after } of played) {
          const was = one
          for (const s of steps) one = one && (mapPosition(one, s) as typeof from | null)
          if (!was || !one || steps.some((s) => s.type === 'cells')) continue
          const cell = (p: Piece, at: typeof from) => {
            const cells = p.parts.find(({ id }) => id === at.part)![at.section]
            return numberIn(cells, at.c, at.r)
          }
          expect(cell(after, one)).toBe(cell(before, was))
        }
        expect(
          mapPositions(
            from,
            played.flatMap((p) => p.steps),
          ),
        ).toEqual(one)
      }),
    )
  })
  it('leave the incremental count equal to the count from scratch', () => {
    fc.assert(
      fc.property(anyPiece, wishes, (piece, list) => {
        for (const { after } of play(piece, list)) {
          for (const section of SECTIONS) {
            const counts = countCells(after.parts[0]![section])
            expect([...counts].sort()).toEqual([...countCellsAfresh(after.parts[0]![section])].sort())
          }
        }
      }),
    )
  })
})

describe('edits made apart', () => {
  const all = (played: { steps: Step[] }[]) => played.flatMap((p) => p.steps)

  it('meet in the same piece whichever came first, or are said to clash', () => {
    let met = 0
    let clashed = 0
    fc.assert(
      fc.property(
        anyPiece,
        fc.array(anyWish, { minLength: 1, maxLength: 4 }),
        fc.array(anyWish, { minLength: 1, maxLength: 4 }),
        (piece, a, b) => {
          const mine = play(piece, a)
          const theirs = play(piece, b)
          if (mine.length === 0 || theirs.length === 0) return
          const over = rebaseSteps(all(mine), all(theirs), piece)
          const back = rebaseSteps(all(theirs), all(mine), piece, false)
          expect(over.ok).toBe(back.ok)
          if (!over.ok || !back.ok) {
            clashed++
            expect(over.ok ? '' : over.problems[0]!.code).toBe('edits-clash')
            return
          }
          met++
          const one = applySteps(theirs.at(-1)!.after, over.value)
          const other = applySteps(mine.at(-1)!.after, back.value)
          expect(one.ok).toBe(other.ok)
          if (one.ok && other.ok) expect(plain(one.value)).toBe(plain(other.value))
        },
      ),
      { numRuns: 600 },
    )
    expect(met).toBeGreaterThan(30)
    expect(clashed).toBeGreaterThan(10)
  })
})

describe('history', () => {
  it('undo all is the start, redo all the end', () => {
    fc.assert(
      fc.property(anyPiece, wishes, (piece, list) => {
        const played = play(piece, list)
        let history: History = EMPTY_HISTORY
        for (const { steps } of played) history = recorded(history, { label: 'edit', steps })
        let now = played.at(-1)?.after ?? piece
        const end = plain(now)
        for (let back = takeBack(history, 'undo'); back; back = takeBack(history, 'undo')) {
          now = valueOf(applySteps(now, back.entry.steps))
          history = back.history
        }
        expect(plain(now)).toBe(plain(piece))
        for (let again = takeBack(history, 'redo'); again; again = takeBack(history, 'redo')) {
          now = valueOf(applySteps(now, again.entry.steps))
          history = again.history
        }
        expect(plain(now)).toBe(end)
      }),
    )
  })
  it('is found again from what was saved: undone and redone as in the tab that made it', () => {
    let turned = 0
    fc.assert(
      fc.property(anyPiece, wishes, fc.array(fc.boolean(), { maxLength: 8 }), (piece, list, turns) => {
        const made: { label: string; steps: Step[] }[] = play(piece, list).map(({ steps }, k) => ({
          label: `edit ${k}`,
          steps,
        }))
        let history: History = EMPTY_HISTORY
        for (const each of made) history = recorded(history, each)
        for (const back of turns) {
          const way = back ? 'undo' : 'redo'
          const taken = takeBack(history, way)
          if (!taken) continue
          turned++
          made.push({ label: takenBackLabel(way, taken.entry.label), steps: [...taken.entry.steps] })
          history = taken.history
        }
        expect(historyOf(made)).toEqual(history)
        // Saved or not yet saved makes no difference.
        const cut = Math.floor(made.length / 2)
        expect(historyOf(made.slice(cut), historyOf(made.slice(0, cut)))).toEqual(history)
      }),
    )
    expect(turned).toBeGreaterThan(50)
  })
  it(
    'what another tab took back from the middle ends what can be undone before it, and what is left still ' +
      'applies',
    () => {
      fc.assert(
        fc.property(anyPiece, fc.array(anyWish, { minLength: 3, maxLength: 5 }), (piece, list) => {
          const played = play(piece, list)
          if (played.length < 3) return
          const over = rebaseSteps(invertSteps(played.at(-2)!.steps), played.at(-1)!.steps, played.at(-1)!.before)
          const taken = over.ok && over.value.length > 0 ? applySteps(played.at(-1)!.after, over.value) : null
          if (!over.ok || !taken?.ok) return
          const history = historyOf([
            ...played.map(({ steps }, k) => ({ label: `edit ${k}`, steps })),
            { label: takenBackLabel('undo', `edit ${played.length - 2}`), steps: over.value },
          ])
          expect(history.undo).toEqual([])
          expect(applySteps(taken.value, history.redo[0]!.steps).ok).toBe(true)
        }),
      )
    },
  )
  it('carried over the edits of others still applies', () => {
    fc.assert(
      fc.property(anyPiece, wishes, fc.array(anyWish, { minLength: 1, maxLength: 3 }), (piece, list, others) => {
        const played = play(piece, list)
        let history: History = EMPTY_HISTORY
        for (const { steps } of played) history = recorded(history, { label: 'edit', steps })
        const base = played.at(-1)?.after ?? piece
        const theirs = play(base, others)
        let now = theirs.at(-1)?.after ?? base
        history = carriedOver(
          history,
          theirs.flatMap((t) => t.steps),
          base,
        )
        for (let back = takeBack(history, 'undo'); back; back = takeBack(history, 'undo')) {
          const next = applySteps(now, back.entry.steps)
          expect(next.ok).toBe(true)
          now = valueOf(next)
          history = back.history
        }
      }),
    )
  })
})

describe('histories that once went wrong', () => {
  it('an undo that would take the last columns, after someone else took the others, is given up', () => {
    const two = { columns: 2, rows: 0, blocks: [] }
    const base = piece({ parts: [part({ start: two, repeat: two, end: two, times: 0 })] })
    const wider = play(base, [{ kind: 7, a: 0, b: 0, c: 476 }])
    const theirs = play(wider.at(-1)!.after, [{ kind: 8, a: 0, b: 0, c: 0 }])
    const history = carriedOver(
      recorded(EMPTY_HISTORY, { label: 'edit', steps: wider[0]!.steps }),
      theirs[0]!.steps,
      wider.at(-1)!.after,
    )
    expect(history.undo).toEqual([])
  })
})

describe('a step that does not fit', () => {
  it('is refused and changes nothing', () => {
    fc.assert(
      fc.property(anyPiece, (piece) => {
        const part = piece.parts[0]!
        // what lies in the cell itself, which a stitch may leave out
        const before = slotCount(part.start) > 0 ? numberAtIndex(part.start, 0) : 0
        const wrong = applySteps(piece, [
          { type: 'cells', part: part.id, section: 'start', patches: [[0, 1, before + 1, 0]] },
        ])
        expect(wrong.ok).toBe(false)
        const stray = applySteps(piece, [
          isGrid(part)
            ? insertRowsStep(part, 'start', 0, 1, 77)
            : { type: 'lines', do: 'insert', part: part.id, section: 'start', at: 0, lines: [[2, 77]] },
        ])
        expect(stray.ok ? '' : stray.problems[0]!.code).toBe('stray-number')
        for (const path of [
          ['parts', part.id, 'id'],
          ['tray', 1, 'number'],
          ['tray'],
          ['parts', part.id, '__proto__'],
          ['constructor'],
          ['version'],
        ]) {
          expect(applySteps(piece, [{ type: 'set', path, before: null, after: 'x' }]).ok).toBe(false)
        }
        expect(
          applySteps(piece, [{ type: 'set', path: ['fit', 'bodyMm'], before: piece.fit.bodyMm, after: 9000 }]).ok,
        ).toBe(false)
      }),
    )
  })
})
