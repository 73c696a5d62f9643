import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { keyOf } from '#core/grid/key'
import { slotCount } from '#core/grid/lines'
import { requireSpec } from '#core/bead/spec'
import { extentOf } from '#core/fit/extent'
import { readPieceFile, writePieceFile } from '#core/format/piece-file'
import { centreOf, freeOf, halfAt, neighboursOf, placeNear, usualBead } from '#core/piece/drawing'
import { laidWork } from '#core/piece/laid'
import { pieceToBody } from '#core/piece/codec'
import {
  basisOf,
  columnsOf,
  isInside,
  numberAt,
  rowsOf,
  SECTIONS,
  techniqueOf,
  voidsOf,
  wholePart,
  workOf,
  type Part,
} from '#core/piece/piece'
import { applySteps } from '#core/piece/step'
import { layingSteps } from '#core/piece/edit'
import { beside, floodFrom, lineBetween, rectangleBetween, runBetween } from '#core/pattern/place'
import { symmetryOf, withImages } from '#core/pattern/symmetry'
import { drawnSize } from '#core/piece/drawn-size'
import { rectOfCell, screenPoint } from '#core/picture/view'
import { valueOf } from '#core/problem'
import { threadCuts } from '#core/supply/thread'
import { tallyPart, totalOf } from '#core/tally/tally'
import { rowWords, workingRowCount } from '#core/tally/words'
import { eachPass } from '#core/technique/act'
import type { Place } from '#core/technique/lattice'
import { TECHNIQUES } from '#core/technique/registry'
import { anyPiece, anyPieceOf } from '../fixture/piece'

/** What every technique must hold, whatever its parts keep and however its beads lie. */

const everyPlace = (part: Part): Place[] => {
  const out: Place[] = []
  for (let r = 0; r < rowsOf(part); r++)
    for (let c = 0; c < columnsOf(part); c++) if (isInside(part, { c, r })) out.push({ c, r })
  return out
}

const anyPart = anyPiece.map((piece) => ({ piece, part: piece.parts[0]! }))
const ANY_ID = TECHNIQUES.filter((t) => !t.holds).map((t) => t.id)

describe('any technique', () => {
  it('is registered with lines of their own lengths among them, since this run knows a guest', () => {
    expect(new Set(TECHNIQUES.map((t) => t.store))).toEqual(new Set(['cells', 'lines']))
  })
  it('lays each of its places once, and says which step lays it', () => {
    fc.assert(
      fc.property(anyPart, ({ part }) => {
        const { order } = techniqueOf(part)
        const work = workOf(part)
        const voids = new Set(voidsOf(part))
        const laid: number[] = []
        for (let i = 0; i < order.count(work); i++)
          for (const key of order.row(i, work).keys) {
            if (voids.has(key)) continue
            laid.push(key)
            const columns = columnsOf(part)
            expect(order.rowOf({ c: key % columns, r: Math.floor(key / columns) }, work)).toBe(i)
          }
        const there = everyPlace(part).map(({ c, r }) => keyOf(columnsOf(part), c, r))
        expect(laid.sort((a, b) => a - b)).toEqual(there)
        const kept = SECTIONS.map((name) => slotCount(part[name]) * (name === 'repeat' ? part.times : 1))
        const slots = kept.reduce((sum, count) => sum + count, 0)
        expect(there).toHaveLength(slots - (techniqueOf(part).voids ? voids.size : 0))
      }),
      { numRuns: 200 },
    )
  })
  it('counts as many beads as its steps pick up', () => {
    fc.assert(
      fc.property(anyPart, ({ part }) => {
        const counts = new Map<number, number>()
        for (let i = 0; i < workingRowCount(part); i++) {
          const words = rowWords(part, i)
          expect(words.runs.reduce((sum, run) => sum + (run.number === 0 ? 0 : run.count), 0)).toBe(words.beads)
          for (const { number, count } of words.runs)
            if (number !== 0) counts.set(number, (counts.get(number) ?? 0) + count)
        }
        if (techniqueOf(part).voids) return
        expect([...counts].sort()).toEqual([...tallyPart(part)].sort())
        expect(totalOf(tallyPart(part))).toBe(wholePart(part).reduce((sum, n) => sum + (n === 0 ? 0 : 1), 0))
      }),
      { numRuns: 200 },
    )
  })
  it('passes each hole as often as the walk of its acts, where it tells acts', () => {
    let told = 0
    fc.assert(
      fc.property(anyPieceOf(ANY_ID), ({ parts }) => {
        const part = parts[0]!
        const { order, path } = techniqueOf(part)
        const work = workOf(part)
        const { passesAt } = path(work)
        if (!passesAt) return
        const walked = new Map<string, number>()
        for (let i = 0; i < order.count(work); i++)
          eachPass(order.row(i, work).acts ?? [], (key, hole) => {
            const name = `${key} ${hole}`
            walked.set(name, (walked.get(name) ?? 0) + 1)
          })
        for (const { c, r } of everyPlace(part)) {
          told++
          const holes = requireSpec(part.spec).spacing === undefined ? (['a'] as const) : (['a', 'b'] as const)
          for (const hole of holes)
            expect(passesAt(c, r, hole)).toBe(walked.get(`${keyOf(columnsOf(part), c, r)} ${hole}`) ?? 0)
        }
      }),
      { numRuns: 300 },
    )
    expect(told).toBeGreaterThan(20)
  })
  it('grows: so many lines have a length, a length so many lines, and back', () => {
    fc.assert(
      fc.property(anyPart, fc.integer({ min: 12, max: 400 }), ({ part }, wished) => {
        const { growth, hangs, wire } = techniqueOf(part)
        // What hangs grows wider with its lines, not longer; what is bent to a size does not grow with them.
        fc.pre(!hangs && !wire?.sizedTo)
        const rows = wished - (wished % growth.repeatRows)
        const basis = basisOf(part)
        const mm = growth.lengthOf({ ...basis, rows })
        expect(growth.lengthOf({ ...basis, rows: rows + growth.repeatRows })).toBeGreaterThan(mm)
        expect(Math.round(growth.rowsFor(mm, basis))).toBe(rows)
      }),
      { numRuns: 200 },
    )
  })
  it('has a size, a thread and words that are never less than nothing, also where nothing lies', () => {
    fc.assert(
      fc.property(anyPart, ({ piece, part }) => {
        const { lengthMm, widthMm, thicknessMm } = extentOf(piece, part)
        for (const mm of [lengthMm.least, widthMm.least, thicknessMm]) expect(mm).toBeGreaterThanOrEqual(-1e-9)
        for (const cut of threadCuts(piece, part)) {
          expect(cut.totalMm).toBeGreaterThanOrEqual(cut.pathMm - 1e-6)
          expect(Number.isFinite(cut.totalMm)).toBe(true)
        }
        expect(laidWork(part).rows).toBeLessThanOrEqual(rowsOf(part))
      }),
      { numRuns: 200 },
    )
  })
  it('survives its file', () => {
    fc.assert(
      fc.property(anyPart, ({ piece }) => {
        const back = valueOf(readPieceFile(writePieceFile(piece)))
        expect(JSON.stringify(pieceToBody(back))).toBe(JSON.stringify(pieceToBody(piece)))
        expect(back).toEqual(piece)
      }),
      { numRuns: 200 },
    )
  })
})

describe('any drawing', () => {
  it('holds each bead within its size, finds it where it lies, and paints it in a box about that', () => {
    fc.assert(
      fc.property(anyPart, fc.constantFrom('level', 'upright'), ({ part }, lie) => {
        const { width, length } = drawnSize(part)
        const usual = usualBead(part)
        // On a lattice that leans, the first beads reach a little over the edge of the work.
        const slack = freeOf(part) ? 1e-6 : Math.max(usual.beadX, usual.beadY) / 2
        for (const { c, r } of everyPlace(part)) {
          const { x, y } = centreOf(part, c, r)
          const half = halfAt(part, c, r)
          expect(x - half.x).toBeGreaterThan(-slack)
          expect(y - half.y).toBeGreaterThan(-slack)
          expect(x + half.x).toBeLessThan(width + 1e-6)
          expect(y + half.y).toBeLessThan(length + 1e-6)
          expect(placeNear(part, { x, y })).toEqual({ c, r })
          const view = { lie, scale: 7, x: 3, y: 5 } as const
          const rect = rectOfCell(part, view, c, r)
          const middle = screenPoint(part, view, c, r)
          expect(Math.abs(rect.x + rect.width / 2 - middle.x)).toBeLessThan(1.5)
          expect(Math.abs(rect.y + rect.height / 2 - middle.y)).toBeLessThan(1.5)
        }
      }),
      { numRuns: 60 },
    )
  })
  it('has neighbours that are neighbours of each other, and none is its own', () => {
    fc.assert(
      fc.property(anyPart, ({ part }) => {
        for (const place of everyPlace(part).slice(0, 40))
          for (const next of neighboursOf(part, place)) {
            expect(next).not.toEqual(place)
            expect(neighboursOf(part, next)).toContainEqual(place)
          }
      }),
      { numRuns: 100 },
    )
  })
  it('is walked by the keys to beads only, and every bead is reached from the first', () => {
    fc.assert(
      fc.property(anyPieceOf(ANY_ID), ({ parts }) => {
        const part = parts[0]!
        const places = everyPlace(part)
        if (places.length === 0 || techniqueOf(part).voids) return
        const reached = new Set<string>()
        const open = [places[0]!]
        while (open.length > 0) {
          const at = open.pop()!
          const name = `${at.c} ${at.r}`
          if (reached.has(name)) continue
          reached.add(name)
          expect(isInside(part, at)).toBe(true)
          for (const [dx, dy] of [
            [1, 0],
            [-1, 0],
            [0, 1],
            [0, -1],
          ] as const)
            open.push(beside(part, at, dx, dy))
        }
        // Over a line without a place the keys find no way; all others are reached.
        if (Array.from({ length: rowsOf(part) }, (_, r) => isInside(part, { c: 0, r })).every(Boolean))
          expect(reached.size).toBe(places.length)
      }),
      { numRuns: 100 },
    )
  })
  it('gives every tool beads of the work: run, line, box and fill', () => {
    fc.assert(
      fc.property(anyPart, fc.nat(), fc.nat(), ({ part }, a, b) => {
        const places = everyPlace(part)
        if (places.length === 0) return
        const [from, to] = [places[a % places.length]!, places[b % places.length]!]
        const run = runBetween(part, from, to)
        expect(run).toContainEqual(from)
        const line = lineBetween(part, from, to)
        expect(line[0]).toEqual(from)
        expect(line.at(-1)).toEqual(to)
        const box = rectangleBetween(part, from, to)
        expect(box).toContainEqual(from)
        expect(box).toContainEqual(to)
        const columns = columnsOf(part)
        const patch = Array.from(floodFrom(part, from), (key) => ({ c: key % columns, r: Math.floor(key / columns) }))
        expect(patch).toContainEqual(from)
        for (const place of [...line, ...patch]) expect(isInside(part, place)).toBe(true)
        const wanted = numberAt(part, from.c, from.r)
        for (const { c, r } of patch) expect(numberAt(part, c, r)).toBe(wanted)
        // A patch ends only where other beads begin.
        const inside = new Set(patch.map(({ c, r }) => keyOf(columns, c, r)))
        for (const place of patch)
          for (const next of neighboursOf(part, place))
            if (!inside.has(keyOf(columns, next.c, next.r))) expect(numberAt(part, next.c, next.r)).not.toBe(wanted)
      }),
      { numRuns: 150 },
    )
  })
  it('has a symmetry that takes a bead to a bead and back, or says that it has none', () => {
    let [had, none] = [0, 0]
    fc.assert(
      fc.property(
        anyPart,
        fc.nat(),
        fc.constantFrom('across', 'along', 'turning', 'both'),
        ({ piece, part }, at, kind) => {
          const places = everyPlace(part)
          if (places.length === 0) return
          const place = places[at % places.length]!
          const symmetry = symmetryOf(part, kind, place.r)
          if (!symmetry.ok) {
            none++
            expect(symmetry.problems[0]!.says).toMatch(/no (mirror|half turn|two mirrors)/)
            return
          }
          had++
          for (const image of symmetry.value.images(place)) expect(isInside(part, image)).toBe(true)
          const laying = withImages(part, new Map([[keyOf(columnsOf(part), place.c, place.r), 2]]), kind)
          expect(applySteps(piece, layingSteps(part, laying)).ok).toBe(true)
        },
      ),
      { numRuns: 200 },
    )
    expect(had).toBeGreaterThan(10)
    expect(none).toBeGreaterThan(3)
  })
})
